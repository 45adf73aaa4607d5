#include "armoury/read.h"

#include "armoury/build.h"
#include "armoury/checker.h"
#include "armoury/crosscheck.h"
#include "armoury/files.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <numeric>

namespace panoplon {

namespace {

std::string hash_of(const Sources& sources) {
    std::uint64_t hash = hash_start;
    for (const Sources::File& file : sources.files())
        hash = hash_text(file.text, hash_text(file.path, hash));
    return fmt::format("{:016x}", hash);
}

RawArmoury read_files(const Sources& sources, Sink& sink) {
    RawArmoury raw;
    for (std::size_t i = 0; i < sources.files().size(); ++i) {
        const auto index = static_cast<std::int32_t>(i);
        const bool csv = sources.files()[i].path.ends_with(".csv");
        if (sources.files()[i].text.empty() && sink.mistake_count() > 0) {
            raw.cut_short = true; // why it has no text was said when it was read
            continue;
        }
        (csv ? read_csv : read_toml)(sources, index, raw, sink);
    }
    return raw;
}

std::vector<std::string> stat_ids(const RawArmoury& raw) {
    std::vector<std::string> ids;
    for (const RawDefinition& definition : raw.definitions)
        if (definition.kind == "stat") ids.push_back(definition.id);
    for (const RawTable& table : raw.tables)
        if (table.kind == "stat")
            for (const auto& row : table.rows) ids.push_back(row.front().text);
    return ids;
}

/// Keeps the first definition of each id and tells both places of a second.
std::vector<RawDefinition> unique_definitions(std::vector<RawDefinition> all,
                                              const Sources& sources, Names& names, Sink& sink) {
    std::vector<RawDefinition> kept;
    std::map<std::string, Span> seen;
    for (RawDefinition& definition : all) {
        const std::string full =
            definition.id.empty() ? definition.kind : definition.kind + "." + definition.id;
        const auto [at, fresh] = seen.emplace(full, definition.span);
        if (!fresh) {
            sink.mistake(definition.span, fmt::format("[{}] is defined a second time", full),
                         fmt::format("the first is at {}", place(at->second, sources)));
            continue;
        }
        if (!definition.id.empty()) names.add(definition.kind, definition.id);
        kept.push_back(std::move(definition));
    }
    return kept;
}

void require_single(const std::vector<RawDefinition>& definitions, const char* kind, Sink& sink) {
    const bool there =
        std::any_of(definitions.begin(), definitions.end(),
                    [&](const RawDefinition& definition) { return definition.kind == kind; });
    if (!there)
        sink.mistake({0, 0, 0, 0}, fmt::format("the armoury has no [{}]", kind),
                     fmt::format("it belongs in armoury.toml: {}", find_kind(kind)->meaning));
}

void rank_items(Armoury& armoury) {
    std::vector<int> order(armoury.items.size());
    std::iota(order.begin(), order.end(), 0);
    std::sort(order.begin(), order.end(), [&](int a, int b) {
        return armoury.items[static_cast<std::size_t>(a)].id <
               armoury.items[static_cast<std::size_t>(b)].id;
    });
    armoury.item_rank.resize(order.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        armoury.item_rank[static_cast<std::size_t>(order[i])] = static_cast<int>(i);
}

} // namespace

Result<ReadArmoury> read_armoury(const std::string& folder) {
    ReadArmoury read;
    Sink& sink = read.sink;
    Result<Sources> sources = read_folder(folder, sink);
    if (!sources.ok()) return sources.failure();
    read.sources = sources.take();
    if (read.sources.files().empty()) return read;
    read.armoury.hash = hash_of(read.sources);

    RawArmoury raw = read_files(read.sources, sink);
    const std::vector<std::string> stats = stat_ids(raw);
    for (const RawTable& table : raw.tables) understand_table(table, stats, raw.definitions, sink);
    Names names;
    std::vector<RawDefinition> definitions =
        unique_definitions(std::move(raw.definitions), read.sources, names, sink);
    if (!raw.cut_short) {
        require_single(definitions, "armoury", sink);
        require_single(definitions, "combat", sink);
    }
    Checker checker(names, !raw.cut_short, sink);
    for (RawDefinition& definition : definitions) checker.check(definition);

    Building building{read.armoury, names, sink, read.sources};
    make_room(building);
    for (const RawDefinition& definition : definitions) build_definition(building, definition);
    rank_items(read.armoury);
    order_derived_stats(read.armoury, sink);
    cross_check(read.armoury, sink);
    if (read.usable()) find_doubts(read.armoury, sink);
    return read;
}

} // namespace panoplon
