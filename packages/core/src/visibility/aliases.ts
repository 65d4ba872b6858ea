import { shuffled, type Random } from '../random/random.js';

/** Shore birds, plants and places: short, easily told apart, and no person's name. */
const WORDS: readonly string[] =
  `Heron Samphire Tern Glasswort Curlew Sluice Plover Cordgrass Dunlin Sandbar Teal Eelgrass Creek Avocet Marram
  Lagoon Whimbrel Saltwort Estuary Sanderling Cockle Driftwood Gannet Kelp Knot Limpet Mudflat Oystercatcher Periwinkle
  Pool Redshank Reed Rockrose Sedge Shingle Shoal Skerry Snipe Spindrift Spoonbill Starfish Stilt Stint Sundew Tidepool
  Turnstone Urchin Wader Whelk Wigeon Wrack Aster Barnacle Bay Breaker Buoy Cove Dune Egret Fen Gull Headland Ibis
  Inlet Islet Jetty Kittiwake Lapwing Merlin Mussel Osprey Pebble Petrel Pier Pintail Puffin Quay Rail Razorbill
  Rush Scallop Scoter Shelduck Skua Smelt Spit Spray Swell Thrift Tide`
    .split(/\s+/)
    .filter((word) => word !== '');

const QUALITIES = ['Grey', 'Tall', 'Quiet', 'Early', 'Far', 'High', 'Low', 'Bright', 'North', 'South', 'East', 'West'];

/**
 * Made-up names for the participants of one exchange, all different, in an order that depends on
 * `random` alone: nothing of the persons goes in, so nothing of them can be told from it.
 *
 * @param count how many are wanted, 0 or more
 * @param taken aliases already given in this exchange
 */
export function makeAliases(count: number, taken: ReadonlySet<string>, random: Random): string[] {
  const result: string[] = [];
  const used = new Set(taken);
  const take = (alias: string) => {
    if (result.length >= count || used.has(alias)) return;
    used.add(alias);
    result.push(alias);
  };
  for (const word of shuffled(WORDS, random)) take(word);
  for (let number = 1; result.length < count; number += 1) {
    for (const quality of shuffled(QUALITIES, random)) {
      for (const word of shuffled(WORDS, random))
        take(number === 1 ? `${quality} ${word}` : `${quality} ${word} ${number}`);
    }
  }
  return result;
}
