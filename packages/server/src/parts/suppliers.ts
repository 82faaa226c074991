/** Suppliers of this server: those its environment names; the demo has stand-ins instead, one of them out of stock and one that fails. */
import { SimulatedSupplier } from '@veglia/simulators/devices';
import { httpOffers, type PartsOffers, type SupplierSetting } from './offers.ts';

/** The suppliers, and the way to let go of them. */
export interface Suppliers {
  readonly all: readonly PartsOffers[];
  close(): Promise<void>;
}

/** Throws what the system throws. */
export async function openSuppliers(settings: readonly SupplierSetting[], demo: boolean): Promise<Suppliers> {
  if (settings.length > 0 || !demo) return { all: settings.map((one) => httpOffers(one)), close: () => Promise.resolve() };
  const simulated = [
    new SimulatedSupplier({ name: 'Brelm Parts', days: 3 }),
    new SimulatedSupplier({ name: 'Ostrel Surplus', condition: 'pulled', days: 8, dearness: 0.6 }),
    new SimulatedSupplier({ name: 'Vantry Direct', days: 1, dearness: 1.3, manner: 'stock-out' }),
    new SimulatedSupplier({ name: 'Korrin Panels', manner: 'failing' }),
  ];
  const all = await Promise.all(simulated.map(async (one) => httpOffers({ name: one.name, address: await one.listen() })));
  return {
    all,
    async close() {
      await Promise.all(simulated.map((one) => one.close()));
    },
  };
}
