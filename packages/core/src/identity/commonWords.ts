/**
 * English words that are also given or family names, in plain spelling. A name among them, by itself, is weak
 * evidence. Written down from common knowledge, not from a published list; names that it lacks are shown once too
 * often, never once too seldom.
 */
const WORDS = `
  abbey ace acre art ash aster autumn bacon baker ball banks bank barber barker barn baron bass bay beach bean bear beck
  bell berry best bill birch bird bishop black blank block bloom blue bob bond boon booth bow bowl box bright brook
  brooks brown buck bud burn bush butcher butler cane cannon card carpenter carter case cash castle chance chandler
  chapel chase church clay cliff close cloud coal coast cole coleman comfort constant cook cooper corn cotton couch
  crane cross crow dale dawn day dean dear dell dew diamond dick dove drake draper drew dune dusk duke eagle earl early
  east easter eden elder ember england eve ever faith fair falls fall farmer farrow faun fawn fell fen fern field fields
  fine finch fisher fish flint flood flower flowers ford forest forge foster fountain fox frank freeman french frost
  fuller gale gardener garland gate gates gay gill glass glen goddard gold golden good grace grant grave gray green grey
  grove guy hale hall ham hand hands hardy hare harmony harper harp hart hawk hay hazel head heart heath heather hedge
  held hill hills holder holly holm holmes home honor hood hook hope horn house hunt hunter hurst iris iron ivory ivy
  jack jade jasmine jay jewel job john joy june kay keen key king kite knight lace lake lamb land lane lark last lavender
  law laurel leaf lee less lewis light lily link little lock long love low loyal lucky mace mark market marsh marshal
  marshall mason mast may mead meadow melody mercer mercy merit miles mill miller mills mist monk moon moor more moss
  mount myrtle nest newman noble north norm oak olive opal orchard otter page paige palm park parks parish parson pat
  patience patient pea pearl peach penny pike pine pitt plant pleasant pole pollard pond poole pool pope porter potter
  power precious price pride prince prior prudence queen rain ranger rath raven ray read reed reef reeve rest rice rich
  ridge river rivers road rob robin rock rocks rod roe rose rosemary rowan royal ruby rush russet rust sage sand sands
  savage sawyer scarlet school sea self serene setter shade shark sharp shell shepherd shine ship shore short silver
  singer skinner sky slate small smith snow south spark spear speed spring star stark steel stem sterling stern stone
  storm strand street strong stout summer summers sun sunny swallow swan swift tailor tanner taylor tern terrace thatcher
  thorn tide tiller timber todd tower town trace trent trinity true tucker turner twig tyler vale van violet walker wall
  waller ward ware warden warner water waters way weaver webb weir well wells west wharf wheat wheeler white wick wild
  will willow winter winters wise wolf wood woods worth wren wright yard young
`;

export const COMMON_WORDS: ReadonlySet<string> = new Set(WORDS.split(/\s+/).filter((word) => word !== ''));

/** Small words between the parts of a name; by themselves they tell nothing. */
export const PARTICLES: ReadonlySet<string> = new Set(
  'al and ap ben bin bint da dal dall de dei del dela della den der des di do dos du el ibn la las le lo los mac mc o of san santa st te ten ter the van vande vom von y zu zum zur jr sr ii iii dr mr mrs ms prof'.split(
    ' ',
  ),
);

/** Given names that a text may have for many reasons: of authors, towns, storms and books. From memory, no list behind it. */
export const USUAL_GIVEN: ReadonlySet<string> = new Set(
  (
    'adam alan albert alex alexander alice amy andrea andreas andrew anna anne anthony antonio arthur barbara ben benjamin ' +
    'carlos carmen caroline catherine charles charlotte chris christian christine christopher clara claire claudia dan daniel ' +
    'david diana edward elena elisabeth elizabeth emily emma eric eva felix finn florence francis frank frederick gabriel ' +
    'george georgia grace hannah hans harry helen henry hugo ian isabel jack jacob james jan jane jean jessica joan joao johan ' +
    'johann john jonas jonathan jordan jorge jose joseph juan julia juliet karen karl kate katherine kevin laura lena leo leon ' +
    'lewis lily linda lisa louis louise lucas lucy luis luke lydia maria marie mario mark martha martin mary matthew max ' +
    'maya mia michael michelle miguel nancy nathan nicholas nicole nina noah nora oliver olivia oscar pablo patricia patrick ' +
    'paul pedro peter philip rachel ralph rebecca richard robert robin roger ruth sally sam samuel sandra sara sarah sebastian ' +
    'simon sofia sophia sophie stephen steven susan teresa theo thomas tim tom tony victor victoria vincent walter william'
  ).split(' '),
);
