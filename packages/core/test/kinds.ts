/** The kinds that made-up trees of the tests are dealt, in a fixed order: a kind that is added joins other tests, and re-deals none of these trees. */
export const KINDS: readonly string[] =
  'thuja bald-cypress beech birch box cedar cherry redwood cotoneaster apple dawn-redwood elm false-cypress maple-field fig fir plum-flowering quince golden-larch hackberry hawthorn hornbeam cryptomeria holly-japanese maple-japanese juniper-needle juniper-scale hornbeam-korean larch hemlock oak oleander olive pine-five-needle pine-two-needle pomegranate privet azalea serissa spruce tamarisk maple-trident wisteria yew zelkova'.split(
    ' ',
  );
