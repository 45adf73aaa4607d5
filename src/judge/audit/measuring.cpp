#include "judge/audit/measuring.h"

#include "judge/audit/earlier_audit.h"

#include "base/compute_each.h"
#include "judge/audit/context_bytes.h"
#include "judge/search/shared_answers.h"

#include <algorithm>
#include <functional>
#include <optional>
#include <set>

namespace panoplon {

namespace {

Answer answer_of(const AnswerNames& names, const ItemContextRow& row) {
    return {names.name(row.item),
            row.best,
            row.without,
            row.with,
            row.empty,
            row.worth,
            row.share,
            row.typical_worth,
            row.grip,
            row.shortfall,
            row.in_window,
            row.after_window,
            row.contested,
            row.judged,
            row.harms,
            row.capped,
            row.units,
            row.with_worst,
            row.with_best};
}

ItemContextRow read_row(const AnswerNames& names, const Answer& answer) {
    ItemContextRow row;
    row.item = names.item(answer.at(0));
    std::size_t next = 1;
    for (double* number : {&row.best, &row.without, &row.with, &row.empty, &row.worth, &row.share,
                           &row.typical_worth, &row.grip, &row.shortfall})
        *number = answer.at(next++).get<double>();
    for (bool* truth :
         {&row.in_window, &row.after_window, &row.contested, &row.judged, &row.harms, &row.capped})
        *truth = answer.at(next++).get<bool>();
    row.units = answer.at(next++).get<std::int64_t>();
    row.with_worst = answer.at(next++).get<double>();
    row.with_best = answer.at(next).get<double>();
    return row;
}

Answer answer_of(const AnswerNames& names, const MeasuredContext& measured) {
    const ContextRow& context = measured.context;
    Answer answer = {{"best", names.write(Found{measured.best, context.best, context.found})},
                     {"proven", context.proven},
                     {"missed", context.missed},
                     {"roughness", context.roughness},
                     {"limiting",
                      {context.limiting.weight_binds, context.limiting.bag_binds,
                       context.limiting.load_share, context.limiting.edge, context.limiting.stacks,
                       context.limiting.bag, context.limiting.lacks_room}}};
    for (const auto& [key, rows] :
         {std::pair("worn", &measured.rows), std::pair("packed", &measured.packed_rows)}) {
        answer[key] = Answer::array();
        for (const ItemContextRow& row : *rows) answer[key].push_back(answer_of(names, row));
    }
    answer["seen"] = Answer::binary({measured.seen.bytes().begin(), measured.seen.bytes().end()});
    return answer;
}

SeenOutfits read_seen(const Answer& answer) {
    const auto& seen = answer.at("seen").get_binary();
    return SeenOutfits(std::string(seen.begin(), seen.end()));
}

MeasuredContext read_context(const Armoury& armoury, const Search& search, const AnswerNames& names,
                             const Answer& answer, const Found& best) {
    MeasuredContext measured;
    measured.best = best.any ? best.candidate : search.wardrobe().bare();
    ContextRow& context = measured.context;
    context.context = search.context();
    context.highest_rank = search.limits().highest_rank;
    context.weight = armoury.at(search.context().encounter).weight;
    context.best = best.margin;
    context.found = best.any;
    if (best.any) context.outfit = search.outfit_of(best.candidate);
    context.proven = answer.at("proven").get<bool>();
    context.missed = answer.at("missed").get<double>();
    context.roughness = answer.at("roughness").get<double>();
    const Answer& limiting = answer.at("limiting");
    context.limiting = {limiting.at(0).get<bool>(),         limiting.at(1).get<bool>(),
                        limiting.at(2).get<double>(),       limiting.at(3).get<double>(),
                        limiting.at(4).get<std::int64_t>(), limiting.at(5).get<std::int64_t>(),
                        limiting.at(6).get<bool>()};
    for (const Answer& row : answer.at("worn")) measured.rows.push_back(read_row(names, row));
    for (const Answer& row : answer.at("packed"))
        measured.packed_rows.push_back(read_row(names, row));
    measured.seen = read_seen(answer);
    return measured;
}

/// A context, and the highest rank of what may be worn there.
struct World {
    Context context;
    int highest_rank;
};

/// Everything, and where the audit is among tiers each tier's world in which any item can have its
/// time.
std::vector<World> worlds_of(const Judging& judging, const std::vector<Context>& contexts) {
    const Armoury& armoury = judging.armoury;
    std::vector<World> worlds;
    for (const Context& context : contexts) {
        std::set<int, std::greater<>> ranks = {every_rank};
        for (std::size_t i = 0; i < armoury.items.size(); ++i)
            if ((armoury.items[i].worn() || armoury.items[i].consumed()) &&
                may_have_its_time(armoury, ItemId(i), context.level))
                ranks.insert(world_of(judging, ItemId(i), context.character, context.level));
        for (const int rank : ranks) worlds.push_back({context, rank});
    }
    return worlds;
}

void enter(Search& search, const World& world) {
    Limits limits;
    limits.highest_rank = world.highest_rank;
    search.limit(std::move(limits));
    search.enter(world.context);
}

/// What an audit's answer about a context is kept as: it hangs on what is judged there, too.
std::string question_of(const Armoury& armoury, const std::vector<bool>& judged) {
    std::string question = "audit";
    for (std::size_t i = 0; i < judged.size(); ++i)
        if (judged[i]) question += " " + armoury.items[i].id;
    return question;
}

/// Whether the world that the search has entered needs no search, for its answer is there or there
/// is none.
bool is_known(const Judging& judging, const Recall& recall, const std::vector<bool>& judged,
              Search& search) {
    const bool whole = search.limits().highest_rank == every_rank;
    if ((!judged.empty() || !whole) && !judges_any(judging, judged, search)) return true;
    return KnownAnswer(recall, judging.armoury, judging.twins, search,
                       question_of(judging.armoury, judged))
        .known([](const Answer&, const Found&) {});
}

/// None where the work was stopped in its midst, or nothing is asked for that is judged there.
std::optional<MeasuredContext> measured_in(const Judging& judging, const Recall& recall,
                                           const std::vector<bool>& judged, const World& world,
                                           Search& search) {
    const Armoury& armoury = judging.armoury;
    enter(search, world);
    const bool whole = world.highest_rank == every_rank;
    if ((!judged.empty() || !whole) && !judges_any(judging, judged, search)) return std::nullopt;
    KnownAnswer kept(recall, armoury, judging.twins, search, question_of(armoury, judged));
    MeasuredContext measured;
    if (kept.known([&](const Answer& answer, const Found& best) {
            measured = read_context(armoury, search, kept.names(), answer, best);
        }))
        return measured;
    (void)search.find_best();
    measured = measure_context(judging, judged, search);
    if (search.ended() && !search.error()) return std::nullopt;
    if (!search.error()) {
        measured.seen = SeenOutfits(search.answers(), kept.names());
        kept.keep(answer_of(kept.names(), measured));
        KnownAnswer(recall, armoury, judging.twins, search, "best")
            .keep({{"best", kept.names().write(search.best())}});
    }
    return measured;
}

/// The same of the outfits that were found before the change; none where the context was not looked
/// at then.
std::optional<MeasuredContext> looked_at_again(const Judging& judging, const Recall& recall,
                                               const EarlierAudit& earlier,
                                               const EarlierAudit::Changed& changed,
                                               const World& world, Search& search) {
    const Armoury& armoury = judging.armoury;
    enter(search, world);
    MeasuredContext measured;
    KnownAnswer kept(recall, armoury, judging.twins, search, "audit");
    if (kept.known([&](const Answer& answer, const Found& best) {
            measured = read_context(armoury, search, kept.names(), answer, best);
        }))
        return measured;
    const SeenOutfits* seen = earlier.find(armoury, world.context, world.highest_rank);
    if (!seen) return std::nullopt;
    std::vector<Found> outfits = seen->read(kept.names());
    search.choose_among(outfits, changed.in(world.context));
    measured = measure_context(judging, {}, search);
    if (search.ended() && !search.error()) return std::nullopt;
    measured.context.proven = false;
    measured.seen = SeenOutfits(outfits, kept.names());
    return measured;
}

/// The worlds that take the longest first: most can be worn at the highest levels.
void search_on_all_ranks(const Judging& judging, const AuditOptions& options, const Watch& watch,
                         const Recall& recall) {
    if (!ranks()) return;
    const Armoury& armoury = judging.armoury;
    std::vector<World> worlds = worlds_of(judging, contexts_of(armoury, options));
    std::stable_sort(worlds.begin(), worlds.end(), [](const World& a, const World& b) {
        return std::pair(a.context.level, a.highest_rank) >
               std::pair(b.context.level, b.highest_rank);
    });
    find_on_all_ranks(
        recall, worlds.size(), [&] { return Search(armoury, judging.twins, watch); }, watch,
        [&](Search& search, std::size_t i, const Recall& known) {
            enter(search, worlds[i]);
            return is_known(judging, known, options.judged, search);
        },
        [&](Search& search, std::size_t i, const Recall& into) {
            (void)measured_in(judging, into, options.judged, worlds[i], search);
        });
}

MeasuredContexts gathered(std::vector<std::optional<MeasuredContext>> found, const Watch& watch) {
    MeasuredContexts measured;
    for (std::optional<MeasuredContext>& one : found)
        if (one) measured.contexts.push_back(std::move(*one));
    measured.partial = watch.stopped();
    return measured;
}

} // namespace

MeasuredContexts measure_contexts(const Judging& judging, const AuditOptions& options,
                                  const Watch& watch, const Recall& recall) {
    search_on_all_ranks(judging, options, watch, recall);
    const std::vector<World> worlds = worlds_of(judging, contexts_of(judging.armoury, options));
    std::vector<std::optional<MeasuredContext>> found(worlds.size());
    for_each_with_worker(
        worlds.size(), [&] { return Search(judging.armoury, judging.twins, watch); }, watch,
        [&](Search& search, std::size_t i) {
            found[i] = measured_in(judging, recall, options.judged, worlds[i], search);
        });
    return gathered(std::move(found), watch);
}

std::optional<SeenOutfits> seen_by_audit(const Judging& judging, const Recall& recall,
                                         Search& search) {
    KnownAnswer kept(recall, judging.armoury, judging.twins, search, "audit");
    std::optional<SeenOutfits> seen;
    (void)kept.known([&](const Answer& answer, const Found&) { seen = read_seen(answer); });
    return seen;
}

MeasuredContexts measure_again(const Judging& judging, const AuditOptions& options,
                               const EarlierAudit& earlier, const Watch& watch,
                               const Recall& recall) {
    const EarlierAudit::Changed changed = earlier.changed(judging.armoury, recall.content);
    const std::vector<World> worlds = worlds_of(judging, contexts_of(judging.armoury, options));
    const auto make_search = [&] { return Search(judging.armoury, judging.twins, watch); };
    tell_all_ranks(recall, worlds.size(), make_search, watch,
                   [&](Search& search, std::size_t i, const Recall& known) {
                       enter(search, worlds[i]);
                       return is_known(judging, known, {}, search);
                   });
    auto measured =
        compute_each(worlds.size(), make_search, watch, [&](Search& search, std::size_t i) {
            return looked_at_again(judging, recall, earlier, changed, worlds[i], search);
        });
    std::vector<std::optional<MeasuredContext>> found;
    for (auto& one : measured) found.push_back(one ? std::move(*one) : std::nullopt);
    return gathered(std::move(found), watch);
}

} // namespace panoplon
