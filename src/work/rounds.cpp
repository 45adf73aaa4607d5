#include "work/rounds.h"

#include "judge/audit/earlier_audit.h"

#include <map>
#include <set>
#include <utility>

namespace panoplon {

namespace {

AuditResult searched_whole(const Looked& looked, Memory& memory, Stages& stages) {
    const Judging judging(looked.read.armoury);
    return in_stage(stages, "contexts", [&](const Watch& watch) {
        return audit(judging, looked.scope, watch, Recall(memory, looked.read));
    });
}

std::map<std::string, ItemVerdict*> verdicts_by_id(const Armoury& armoury, AuditResult& audit) {
    std::map<std::string, ItemVerdict*> verdicts;
    for (ItemVerdict& one : audit.items) verdicts.emplace(armoury.at(one.item).id, &one);
    for (ConsumableVerdict& one : audit.consumables)
        verdicts.emplace(armoury.at(one.judged.item).id, &one.judged);
    return verdicts;
}

/// Whether numbers on paper decide it, and no search.
bool rests_on_paper(const ItemVerdict& verdict) {
    return verdict.verdict == Verdict::outclassed || verdict.verdict == Verdict::unreachable ||
           verdict.verdict == Verdict::idle;
}

/// Gives what was not changed the verdict that it had where only a search can tell another.
std::vector<VerdictShift> keep_unsure(const Looked& before, Looked& now) {
    std::set<std::string> changed;
    for (const DefinitionChange& change : differences(before.read, now.read))
        if (change.kind == "item") changed.insert(change.id);
    AuditResult was = before.audit;
    const auto known = verdicts_by_id(before.read.armoury, was);
    std::vector<VerdictShift> unsure;
    for (const auto& [id, verdict] : verdicts_by_id(now.read.armoury, now.audit)) {
        const auto at = known.find(id);
        if (changed.contains(id) || at == known.end() || at->second->calls() == verdict->calls() ||
            rests_on_paper(*at->second) || rests_on_paper(*verdict))
            continue;
        unsure.push_back({id, *at->second, *verdict});
        const ItemId item = verdict->item;
        *verdict = *at->second;
        verdict->item = item;
    }
    return unsure;
}

} // namespace

bool Rounds::begin(ReadArmoury read, AuditOptions scope, Stages& stages) {
    auto looked =
        std::make_shared<Looked>(Looked{std::move(read), std::move(scope), AuditResult(), true});
    looked->audit = searched_whole(*looked, memory_, stages);
    if (looked->audit.partial) return false;
    present_ = searched_ = std::move(looked);
    return true;
}

Comparison Rounds::compare(const Looked& before, const Looked& after, Stages& stages) const {
    return in_stage(stages, "loadouts", [&](const Watch& watch) {
        Comparison comparison = compare_loadouts(before.read, after.read, watch);
        compare_audits(before.read.armoury, before.audit, after.read.armoury, after.audit,
                       comparison);
        return comparison;
    });
}

std::optional<Glance> Rounds::glance(ReadArmoury read, AuditOptions scope, Stages& stages) {
    auto looked =
        std::make_shared<Looked>(Looked{std::move(read), std::move(scope), AuditResult(), false});
    const Judging judging(looked->read.armoury);
    const EarlierAudit earlier(present_->read, present_->audit);
    looked->audit = in_stage(stages, "contexts at a glance", [&](const Watch& watch) {
        return audit_again(judging, looked->scope, earlier, watch, Recall(memory_, looked->read));
    });
    Glance found;
    found.unsure = keep_unsure(*present_, *looked);
    found.comparison = compare(*present_, *looked, stages);
    if (found.comparison.partial) return std::nullopt;
    present_ = std::move(looked);
    return found;
}

std::optional<Comparison> Rounds::search(Stages& stages) {
    auto looked = std::make_shared<Looked>(*present_);
    looked->whole = true;
    looked->audit = searched_whole(*looked, memory_, stages);
    if (looked->audit.partial) return std::nullopt;
    Comparison comparison = compare(*searched_, *looked, stages);
    if (comparison.partial) return std::nullopt;
    present_ = searched_ = std::move(looked);
    return comparison;
}

} // namespace panoplon
