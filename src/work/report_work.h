// The work of a report: what each section needs is found, and the sections are put together.
#pragma once

#include "report/sections.h"
#include "work/audit_work.h"

#include <set>

namespace panoplon {

/// What was asked for.
struct ReportRequest {
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
    /// `recall`: what is known of contexts from before, for this reading; it learns what is found.
    ReportWork(const ReadArmoury& read, ReportRequest request, Recall recall, Stages& stages);

    /// Runs what the sections need; the first error of a fight.
    std::optional<FightError> run(const ReadArmoury* old);
    Report take() { return std::move(report_); }
    [[nodiscard]] bool partial() const { return report_.partial; }
    /// The tables of what was found, for the file of results.
    std::vector<Table> take_tables() { return std::move(tables_); }

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

    Stages& stages_;
    const ReadArmoury& read_;
    const Armoury& armoury_;
    const Judging judging_;
    ReportRequest request_;
    Recall recall_;
    AuditFound audit_;
    Report report_;
    std::vector<Table> tables_;
    std::optional<FightError> error_;
};

} // namespace panoplon
