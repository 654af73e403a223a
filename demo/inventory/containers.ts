import { NO_KIND, type ContainerBody } from '@unto/contract';
import type { DemoItem, Refer } from './demo-item.js';

export function containers(refer: Refer, day: (ago: number) => string): DemoItem<'container'>[] {
  const container = (
    key: string,
    compoundKey: string,
    body: Omit<ContainerBody, 'compoundId' | keyof typeof NO_KIND>,
  ): DemoItem<'container'> => ({
    key,
    kind: 'container',
    body: { ...NO_KIND, ...body, compoundId: refer(compoundKey) },
  });
  return [
    container('corvid-k7', 'corvid', {
      name: 'Corvid Film, lot K7',
      lot: 'K7',
      openedOn: day(60),
      expiresOn: day(-300),
      tareG: 96,
      netG: 420,
      priceMinor: 6800,
    }),
    container('corvid-k5', 'corvid', {
      name: 'Corvid Film, lot K5',
      lot: 'K5',
      openedOn: day(410),
      expiresOn: day(12),
      tareG: 96,
      netG: 420,
      priceMinor: 6800,
    }),
    container('soothollow-s2', 'soothollow', {
      name: 'Soothollow, lot S2',
      lot: 'S2',
      openedOn: day(120),
      expiresOn: day(-200),
      tareG: 88,
      netG: 340,
      priceMinor: 7400,
    }),
    container('greyslip-g1', 'greyslip', {
      name: 'Greyslip Dry Film, lot G1',
      lot: 'G1',
      openedOn: day(200),
      expiresOn: null,
      tareG: 84,
      netG: 300,
      priceMinor: 1450,
    }),
    container('lampglaze-l3', 'lampglaze', {
      name: 'Lampglaze Jar, lot L3',
      lot: 'L3',
      openedOn: day(90),
      expiresOn: day(-120),
      tareG: 210,
      netG: 640,
      priceMinor: 9800,
    }),
    container('lampglaze-l2', 'lampglaze', {
      name: 'Lampglaze Jar, lot L2',
      lot: 'L2',
      openedOn: day(345),
      expiresOn: day(-20),
      tareG: 210,
      netG: 640,
      priceMinor: 9600,
    }),
    container('ternwhite-r1', 'ternwhite', {
      name: 'Ternwhite Concentrate, lot R1',
      lot: 'R1',
      openedOn: day(392),
      expiresOn: day(-60),
      tareG: 62,
      netG: 330,
      priceMinor: 8700,
    }),
    container('ternwhite-r2', 'ternwhite', {
      name: 'Ternwhite Concentrate, lot R2',
      lot: 'R2',
      openedOn: null,
      expiresOn: day(-400),
      tareG: 62,
      netG: 330,
      priceMinor: 8900,
    }),
    container('russet-t1', 'russet', {
      name: 'Russet Trial, lot T1',
      lot: 'T1',
      openedOn: day(30),
      expiresOn: day(-150),
      tareG: 41,
      netG: 90,
      priceMinor: 3900,
    }),
  ];
}
