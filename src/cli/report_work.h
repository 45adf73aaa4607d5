// The work of a report: what each section needs is found, and the sections are put together.
#pragma once

#include "cli/known_contexts.h"
#include "report/sections.h"

#include <set>

namespace panoplon {

/// What was asked for.
struct ReportAsked {
    AuditOptions audit;
    std::uint64_t trials = 0;
    std::uint64_t seed = 1;
    std::set<std::string> only; ///< sections; empty: all

    [[nodiscard]] bool wants(const char* section) const {
        return only.empty() || only.contains(section);
    }
};

class ReportWork {
  public:
    ReportWork(const Invocation& invocation, const ReadArmoury& read, ReportAsked asked);

    /// Runs what the sections need; the first error of a fight.
    std::optional<FightError> run(const ReadArmoury* old);
    Report take() { return std::move(report_); }
    [[nodiscard]] bool partial() const { return report_.partial; }
    void keep_known(Document& document) const { known_.keep_in(document); }
    /// The tables of what was found, for the file of results.
    std::vector<CsvTable> take_tables() { return std::move(tables_); }

  private:
    void add(Section section);
    /// Tables of a document; those of one name stand below one another.
    void keep(const Document& document);
    void note(bool partial);
    [[nodiscard]] bool can_judge() const;
    static Section unjudged();
    [[nodiscard]] bool wants_audit() const;
    void judge();
    void changes(const ReadArmoury& old);
    void doubts();
    Document curves_by(const CurveOptions& options);
    void curves();
    /// By even luck against the yardstick, or the first encounter that counts.
    void ladder();
    void journeys();
    void loadouts();
    std::optional<Document> fight_of(const Standing& standing);

    const Invocation& invocation_;
    const ReadArmoury& read_;
    const Armoury& armoury_;
    const Judging judging_;
    ReportAsked asked_;
    KnownContexts known_;
    AuditResult audit_;
    AuditExtras extras_;
    Report report_;
    std::vector<CsvTable> tables_;
    std::optional<FightError> error_;
};

} // namespace panoplon
