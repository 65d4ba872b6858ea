/** Invented places; each field is one or two whole sentences that a draft is put together from. */
export interface Site {
  readonly name: string;
  readonly cause: string;
  readonly evidence: string;
  readonly loss: string;
  readonly proposal: string;
  readonly reason: string;
  readonly risk: string;
  readonly neighbours: string;
  readonly steps: readonly [string, string, string];
  /** Item, amount, cost in thousand euros. */
  readonly costs: ReadonlyArray<readonly [string, string, number]>;
}

export const SITES: readonly Site[] = [
  {
    name: 'the western basin at Karsta',
    cause: 'The western basin lost its creek network when the sluice was fixed shut in 1987.',
    evidence:
      'Since then the bed has silted by roughly four centimetres a decade, which we measured at nine stakes between October and March.',
    loss: 'Sea aster and glasswort have given way to a single stand of common reed that covers eleven of the fourteen hectares.',
    proposal:
      'We propose three cuts through the old bank, each six metres wide, and a sluice that stands open on spring tides.',
    reason:
      'The middle cut follows the creek line of the 1962 survey, so that water finds its earlier path and scours it clear by itself.',
    risk: 'Re-opening the sluice would bring back the marsh within a few years, as long as the supply of sediment holds.',
    neighbours: 'The farm east of the bank drains through the same ditch and fears salt in its pasture.',
    steps: [
      'Survey the bank and the footpath in April',
      'Make the cuts in two neap-tide weeks in September',
      'Read the stakes every second spring tide for three years',
    ],
    costs: [
      ['Earthworks, three cuts', '180 m³', 42],
      ['Sluice hinge and stops', '1', 18],
      ['Survey and stakes', '9 stakes', 6],
    ],
  },
  {
    name: 'the Ostra saltings',
    cause: 'Wash from the ferry has cut the seaward edge of the Ostra saltings into a cliff as high as a person.',
    evidence:
      'Comparing two sets of air photographs, taken in 2004 and 2021, we found that the edge went back by nineteen metres on average.',
    loss: 'The pioneer zone is gone along 600 metres, so that waves meet old, brittle turf that breaks off in blocks.',
    proposal: 'We propose brushwood fences in two rows, forty metres off the cliff, with gaps for the creeks.',
    reason:
      'Such fences slow the water enough for mud to settle behind them, and they can be mended by hand with local willow.',
    risk: 'If the ferry grows larger before the mud has settled, the fences will not stand.',
    neighbours: 'Two families still set nets for flounder exactly where the outer row would go.',
    steps: [
      'Agree a slow-speed stretch with the ferry company',
      'Build 300 metres of fence as a trial in June',
      'Level the trial and an untouched stretch each equinox',
    ],
    costs: [
      ['Willow and stakes', '600 m', 31],
      ['Boat and crew', '24 days', 29],
      ['Levelling', '6 campaigns', 9],
    ],
  },
  {
    name: 'Halden Point',
    cause: 'A car park built on rubble in 1971 covers what used to be the upper marsh of Halden Point.',
    evidence:
      'Four cores taken along its edge all reach the old marsh soil between 80 and 110 centimetres below the asphalt.',
    loss: 'Without an upper zone, the marsh has nowhere to go as the sea rises, and the lower zone drowns against the kerb.',
    proposal:
      'We propose to take up the seaward half of the car park and lower the ground to ten centimetres above mean high water of spring tides.',
    reason:
      'This is the height at which sea lavender grows on the untouched side of the point, where we surveyed thirty-two plots.',
    risk: 'The rubble may hold oil from forty years of parked cars, and nobody has tested it.',
    neighbours: 'The sailing club would lose 45 of its 90 parking places in summer.',
    steps: [
      'Test the rubble for oil and metals',
      'Lift the asphalt and lower the ground over one winter',
      'Leave half of the plots bare and sow the other half',
    ],
    costs: [
      ['Lifting and carting', '2,400 m³', 96],
      ['Tests of the rubble', '20 samples', 7],
      ['Seed and planting', '0.8 ha', 11],
    ],
  },
  {
    name: 'the Brannock reclaim',
    cause: 'The Brannock reclaim was diked for barley in 1938 and has sunk by more than half a metre since.',
    evidence:
      'The field now lies 60 centimetres below the marsh outside its dike, as a line of levels across both shows.',
    loss: 'In wet years a third of the field stands under water until May, and the tenant has stopped sowing there.',
    proposal:
      'We propose to breach the dike in one place and to let the field flood on every tide, behind a new low bank.',
    reason:
      'Sunk land fills quickly: the nearby breach at Tarn gained fourteen centimetres of mud in its first five years.',
    risk: 'Until it fills, the field will be a lagoon, which the public may take for a failure.',
    neighbours: 'The parish owns the track on the dike and wants it kept for the school run.',
    steps: [
      'Build the low bank a year ahead, so that it is green before the breach',
      'Breach on the smallest neap tide of August',
      'Publish a photograph from the same post every month',
    ],
    costs: [
      ['New bank', '740 m', 150],
      ['Breach', '1', 22],
      ['Footbridge for the track', '1', 48],
    ],
  },
  {
    name: 'Sella creek mouth',
    cause: 'The mouth of Sella creek has been dredged straight for mussel boats every third winter since 1995.',
    evidence: 'On five visits at low water we counted two living branches where the chart of 1990 shows seven.',
    loss: 'Young bass, which feed in small branches, were caught in only one of our twelve fyke-net nights.',
    proposal: 'We propose to end dredging above the old jetty and to close the straight cut with the next dredgings.',
    reason: 'Mud placed in the cut costs the boats nothing extra, since it would otherwise be taken out to sea.',
    risk: 'The plug may slump in a winter storm and silt the berth it was meant to spare.',
    neighbours: 'The mussel growers accept a longer way at low water if the berth stays at two metres.',
    steps: [
      'Sound the berth and the cut in March',
      'Place the plug in two lifts, a month apart',
      'Repeat the fyke nets on the same twelve nights of the year',
    ],
    costs: [
      ['Placing dredgings', '5,200 m³', 38],
      ['Soundings', '4', 8],
      ['Fish survey', '12 nights', 14],
    ],
  },
  {
    name: 'the Vell islands',
    cause: 'Geese have grazed the Vell islands bare since the last lighthouse keeper, who kept dogs, left in 2009.',
    evidence:
      'Inside six small fences that the warden set up by chance in 2016, saltmarsh grass stands knee-high; outside it is shorter than a finger.',
    loss: 'Bare ground has grown from two to seventeen percent of the main island in eight years.',
    proposal: 'We propose to fence a tenth of the island at a time, moving the fences every second spring.',
    reason: 'The birds keep nine tenths of their ground, and each part gets two summers to flower and seed.',
    risk: 'Fences on an island without a harbour have to be carried, and posts rot quickly in salt ground.',
    neighbours: 'Bird watchers fear that redshank chicks will be caught in the mesh.',
    steps: [
      'Choose the first plots by lot, to have a fair comparison',
      'Fence in March, before the terns arrive',
      'Count flower heads in 1 m² squares each July',
    ],
    costs: [
      ['Fencing and posts', '900 m', 17],
      ['Boat days', '10', 12],
      ['Counting', '3 summers', 9],
    ],
  },
  {
    name: 'the Marram road verge',
    cause: 'The coast road crosses the Marram marsh on a bank with a single culvert that is half a metre wide.',
    evidence:
      'Loggers on both sides, read over two months, show that high water behind the road comes ninety minutes late and forty centimetres low.',
    loss: 'Behind the road the ground is brackish at best, and alder has begun to grow on it.',
    proposal: 'We propose to replace the culvert by an open span of eight metres.',
    reason:
      'A simple model of the two basins, fitted to our loggers, gives nearly the full tide at eight metres and only two thirds of it at four.',
    risk: 'The gardens behind the road would see salt water on about six tides a year.',
    neighbours: 'The bus line can do without the road for three weeks in autumn, but not in summer.',
    steps: [
      'Level all gardens and show each owner their six tides',
      'Put the span in during the autumn holidays',
      'Leave the loggers in place for two years',
    ],
    costs: [
      ['Span and abutments', '8 m', 410],
      ['Garden bunds', '7', 35],
      ['Loggers', '2 years', 5],
    ],
  },
  {
    name: 'Copper Hard',
    cause: 'Copper Hard was a breaker’s yard until 1983, and its mud still holds the paint of a hundred ships.',
    evidence: 'Of our fifteen mud samples, nine exceed the national limit for copper and four also that for tin.',
    loss: 'Cordgrass grows in a clear ring around the slipways but not within thirty metres of them.',
    proposal: 'We propose to cap the worst half hectare with clean sand and clay and to plant cordgrass on the cap.',
    reason:
      'Digging the mud out would stir it up and send it to the oyster beds, while roots and clay hold it in place.',
    risk: 'A cap of thirty centimetres can be worn through by the wash of one careless barge.',
    neighbours: 'The oyster growers will agree to nothing before they have seen our samples repeated by somebody else.',
    steps: [
      'Have the samples repeated by the harbour laboratory',
      'Place the cap from the shore, in two layers',
      'Sample oysters and mud each spring for ten years',
    ],
    costs: [
      ['Sand and clay', '1,500 m³', 52],
      ['Planting', '0.5 ha', 9],
      ['Laboratory', '10 years', 40],
    ],
  },
  {
    name: 'the Nether Lock meadows',
    cause: 'Hay was cut in the Nether Lock meadows every July until about 1990; since then nobody has come.',
    evidence:
      'In forty quadrats we found twelve species, where a list kept by the last mower’s daughter has thirty-one.',
    loss: 'Couch grass has laid a mat as thick as a hand over what used to be sea plantain and thrift.',
    proposal: 'We propose to mow a third of the meadows each year and to graze the aftermath with eight young cattle.',
    reason: 'Mowing takes off the mat, and hooves break the ground open for seed that still lies in it.',
    risk: 'Eight cattle in a wet August can turn a creek bank into a ford within a week.',
    neighbours: 'The only grazier within reach would come, if water is laid on for his animals.',
    steps: [
      'Lay a water pipe from the lock',
      'Mow the first third in late July',
      'Sow nothing for three years and see what comes',
    ],
    costs: [
      ['Mowing and carting', '9 ha a year', 14],
      ['Water pipe and troughs', '420 m', 13],
      ['Quadrats', '3 summers', 6],
    ],
  },
  {
    name: 'Quern Bay',
    cause:
      'Storm Berta threw a bar of shingle across the mouth of Quern Bay in 2018 and cut the marsh off from the tide.',
    evidence:
      'Salinity in the pool behind the bar fell from 31 to 9 parts in a thousand within two years, by the school’s monthly readings.',
    loss: 'Glasswort has vanished from the pool’s edge, and midges have made the village bench unusable.',
    proposal:
      'We propose to do nothing for three more years, and to cut the bar by hand only if no storm has opened it by then.',
    reason:
      'Parish papers tell of the same bar in 1903, 1928 and 1954, and each time the sea took it away within seven years.',
    risk: 'If the bar grows instead, the cut will be three times the work.',
    neighbours: 'The village has collected 400 signatures for a digger this spring.',
    steps: [
      'Measure the bar after every storm',
      'Hold an open afternoon on what the parish papers say',
      'Set the height of the bar at which we would cut it',
    ],
    costs: [
      ['Surveys', '12', 4],
      ['Open afternoon', '1', 1],
      ['Hand cutting, if needed', '60 m³', 9],
    ],
  },
  {
    name: 'the Orrin flats',
    cause:
      'Pacific oysters escaped from a farm in the 1990s and have built a reef over nine hectares of the Orrin flats.',
    evidence:
      'Walking the edge with a satellite receiver in 2019 and again this year, we found it had moved inland by 26 metres.',
    loss: 'Eelgrass, which needs soft ground, has kept only two patches, and brent geese no longer stop here.',
    proposal: 'We propose to clear lanes of ten metres through the reef at right angles to the shore.',
    reason:
      'Lanes let the ebb drain as it used to, and mud returned within two winters in a lane that the lugworm diggers keep open.',
    risk: 'Broken shell is sharp, and spat will settle on it again unless it is carried off.',
    neighbours: 'The diggers know the flats better than we do and would do the work for the price of their time.',
    steps: [
      'Mark three lanes with the diggers',
      'Clear them by hand in February',
      'Photograph fixed squares from a pole at each spring tide',
    ],
    costs: [
      ['Clearing by hand', '90 days', 21],
      ['Carting shell', '140 t', 10],
      ['Photographs', '24 tides', 3],
    ],
  },
  {
    name: 'Tarrow lagoon',
    cause: 'Tarrow lagoon receives the runoff of six dairy farms through one ditch.',
    evidence:
      'Nitrate in the ditch was above 40 milligrams a litre in eleven of our sixteen samples, and highest after the first rain of autumn.',
    loss: 'Green algae cover the flats by June and rot there, so that the creek beneath holds no oxygen at night.',
    proposal:
      'We propose a reed bed of one hectare at the ditch’s end, and a strip left unmown along its last kilometre.',
    reason: 'Beds of this size take out about half of the nitrate in comparable ditches, at least from May to October.',
    risk: 'In winter, when most of the nitrate comes, reeds do little.',
    neighbours: 'Four of the six farmers would give up a strip of two metres; the other two want to be paid.',
    steps: [
      'Sample each farm’s own outfall',
      'Shape and plant the bed in April',
      'Take a sample after every rain above ten millimetres',
    ],
    costs: [
      ['Shaping the bed', '1 ha', 44],
      ['Reed rhizomes', '4,000', 8],
      ['Strip payments', '5 years', 15],
    ],
  },
];
