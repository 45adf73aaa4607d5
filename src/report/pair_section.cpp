#include "report/sections.h"

namespace panoplon {

Section pair_section(const Armoury& armoury, const std::vector<PairWorth>& pairs) {
    Section section = section_of("pairs");
    if (pairs.empty()) {
        section.add(
            Paragraph{"No pair of items does clearly more or less together than the product "
                      "of what each does alone.",
                      false});
        return section;
    }
    section.add(
        Paragraph{"Things were taken off the best loadouts, and off others drawn at random, "
                  "one alone and two at once: over 0 two help each other, under 0 each takes "
                  "from what the other gives.",
                  false});
    if (const auto figure = pairs_figure(armoury, pairs))
        section.add(Picture{"pairs", *figure, figure->title, {}});
    section.add(page_table(pairs_table(armoury, pairs), "pairs", "Pairs"));
    return section;
}

} // namespace panoplon
