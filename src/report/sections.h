// The sections of a report, each from what a command has found.
#pragma once

#include "armoury/read.h"
#include "judge/appraise/standing.h"
#include "report/report.h"
#include "show/audit/show_audit.h"
#include "show/curve/show_curve.h"
#include "show/fight/show_fight.h"
#include "show/journey/show_journey.h"

namespace panoplon {

/// A section that --only can name, in the order of the page.
struct SectionRow {
    const char* id;
    const char* title;
    const char* about; ///< what it shows
};
[[nodiscard]] std::span<const SectionRow> section_rows();
/// An empty one; `id` is one of the table's.
[[nodiscard]] Section section_of(const char* id);

/// An audit with what belongs to it.
struct Audited {
    const AuditOptions& options;
    const AuditResult& result;
    const AuditExtras& extras;
};

/// What there is, how it was judged, and what the words mean.
[[nodiscard]] Section about_section(const ReadArmoury& read, const Audited& audited,
                                    std::uint64_t trials);
/// What asks for the designer's hand, the most urgent first.
[[nodiscard]] Section first_section(const Armoury& armoury, const Audited& audited);
/// Every worn item, consumable, set and tier with its numbers.
[[nodiscard]] Section verdict_section(const Armoury& armoury, const Audited& audited);
/// Pairs that do more, or less, together than each alone.
[[nodiscard]] Section pair_section(const Armoury& armoury, const std::vector<PairWorth>& pairs);
[[nodiscard]] Section map_section(const Armoury& armoury, const Audited& audited);
/// What a comparison of an older armoury with this one shows.
[[nodiscard]] Section change_section(const Document& comparison);
/// Curves, or ladders of tiers: a document each.
[[nodiscard]] Section curve_section(const char* id, const std::vector<Document>& curves);
[[nodiscard]] Section
journey_section(const std::vector<std::pair<std::string, Document>>& journeys);
[[nodiscard]] Section loadout_section(const Armoury& armoury,
                                      const std::vector<Standing>& standings);
/// One fight of each loadout, told.
[[nodiscard]] Section
fight_section(const Armoury& armoury,
              const std::vector<std::pair<const Standing*, Document>>& fights);
/// `read`: with its doubts found.
[[nodiscard]] Section doubt_section(const ReadArmoury& read);
/// The card of every item; verdicts where there was an audit.
[[nodiscard]] Section item_section(const Armoury& armoury, const AuditResult* result);

/// Adds a table of a document by name, under a name of the report's, and its figures.
void add_table(Section& section, const Document& document, const std::string& table,
               const std::string& name, const std::string& caption);
void add_figures(Section& section, const Document& document, const std::string& folder);

} // namespace panoplon
