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
    ReportTable table{"pairs",
                      "Pairs",
                      {{"first", CellKind::item, 0, ""},
                       {"second", CellKind::item, 0, ""},
                       {"together", CellKind::gain, 1, "beyond the product of the two"},
                       {"from", CellKind::gain, 1,
                        "the interval that holds the truth 95 times of "
                        "100"},
                       {"to", CellKind::gain, 1, ""},
                       {"first gives", CellKind::gain, 1, "to the margin, beside the second"},
                       {"second gives", CellKind::gain, 1, "to the margin, beside the first"},
                       {"seen", CellKind::whole, 0, "loadouts that had both"}},
                      {}};
    for (const PairWorth& one : pairs)
        table.rows.push_back({armoury.at(one.first).id, armoury.at(one.second).id,
                              one.together.mean, one.together.low, one.together.high,
                              one.first_gain, one.second_gain, static_cast<double>(one.seen)});
    section.add(std::move(table));
    return section;
}

} // namespace panoplon
