#include "work/rounds.h"

#include "judge/audit/earlier_audit.h"

#include <utility>

namespace panoplon {

namespace {

AuditResult searched_whole(const Looked& looked, Memory& memory, Stages& stages) {
    const Judging judging(looked.read.armoury);
    return in_stage(stages, "contexts", [&](const Watch& watch) {
        return audit(judging, looked.scope, watch, Recall(memory, looked.read));
    });
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

std::optional<Comparison> Rounds::glance(ReadArmoury read, AuditOptions scope, Stages& stages) {
    auto looked =
        std::make_shared<Looked>(Looked{std::move(read), std::move(scope), AuditResult(), false});
    const Judging judging(looked->read.armoury);
    const EarlierAudit earlier(present_->read, present_->audit);
    looked->audit = in_stage(stages, "contexts at a glance", [&](const Watch& watch) {
        return audit_again(judging, looked->scope, earlier, watch, Recall(memory_, looked->read));
    });
    Comparison comparison = compare(*present_, *looked, stages);
    if (comparison.partial) return std::nullopt;
    present_ = std::move(looked);
    return comparison;
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
