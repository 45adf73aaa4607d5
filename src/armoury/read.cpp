#include "armoury/read.h"

#include "armoury/bounds.h"
#include "armoury/build.h"
#include "armoury/checker.h"
#include "armoury/crosscheck.h"
#include "armoury/files.h"
#include "armoury/link.h"
#include "armoury/merge.h"

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

/// Reads one table, and says of its file what it is.
void read_table(Sources& sources, std::int32_t file, RawArmoury& raw, Sink& sink) {
    std::optional<RawTable> table = read_csv(sources, file, sink);
    raw.cut_short = raw.cut_short || !table || table->cut_short;
    if (!table) return;
    sources.is_table(file, table->separator, table->header_line);
    if (!table->made_id.empty())
        sources.note(fmt::format("{}: ids are made from names: {}", sources.file(file).path,
                                 table->made_id));
    raw.tables.push_back(std::move(*table));
}

/// Of tables a row is one.
std::size_t count_definitions(const RawArmoury& raw) {
    std::size_t count = raw.definitions.size();
    for (const RawTable& table : raw.tables) count += table.rows.size();
    return count;
}

RawArmoury read_files(Sources& sources, Sink& sink) {
    RawArmoury raw;
    for (std::size_t i = 0; i < sources.files().size(); ++i) {
        const auto index = static_cast<std::int32_t>(i);
        if (sources.files()[i].text.empty() && sink.mistake_count() > 0) {
            raw.cut_short = true; // why it has no text was said when it was read
            continue;
        }
        if (sources.files()[i].path.ends_with(".toml"))
            read_toml(sources, index, raw, sink);
        else
            read_table(sources, index, raw, sink);
        if (count_definitions(raw) <= most_definitions) continue;
        raw.cut_short = true;
        sink.mistake(
            {index, 0, 0, 0},
            fmt::format("with it the armoury has more than {} definitions", most_definitions),
            "files after it were not read");
        break;
    }
    return raw;
}

/// What the armoury leaves out of every table.
std::vector<std::string> ignored_headers(const RawArmoury& raw) {
    std::vector<std::string> headers;
    for (const RawDefinition& definition : raw.definitions) {
        const Node* const list =
            definition.kind == "armoury" ? definition.body.find("ignore") : nullptr;
        if (!list) continue;
        for (const Node& header : list->items) headers.push_back(header.text);
    }
    return headers;
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

/// Plain words of the names that stats have, with their ids.
std::vector<std::pair<std::string, std::string>> stat_names(const RawArmoury& raw) {
    std::vector<std::pair<std::string, std::string>> names;
    for (const RawDefinition& definition : raw.definitions)
        if (const Node* name = definition.body.find("name"); name && definition.kind == "stat")
            names.emplace_back(plain_word(name->text), definition.id);
    for (const RawTable& table : raw.tables) {
        if (table.kind != "stat") continue;
        for (std::size_t i = 0; i < table.headers.size(); ++i) {
            if (plain_word(table.headers[i].text) != "name") continue;
            for (const auto& row : table.rows)
                if (row.size() > i + 1)
                    names.emplace_back(plain_word(row[i + 1].text), row.front().text);
        }
    }
    std::erase_if(names, [](const auto& name) { return name.first.empty(); });
    return names;
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

/// By definition: its place when all are sorted by id.
template <class List>
std::vector<int> ranks(const List& list) {
    std::vector<std::size_t> order(list.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return list[a].id < list[b].id; });
    std::vector<int> rank(order.size());
    for (std::size_t i = 0; i < order.size(); ++i) rank[order[i]] = static_cast<int>(i);
    return rank;
}

void rank_all(Armoury& armoury) {
    armoury.item_rank = ranks(armoury.items);
    armoury.set_rank = ranks(armoury.sets);
    armoury.upgrade_rank = ranks(armoury.upgrades);
}

} // namespace

Result<ReadArmoury> read_armoury(const std::string& folder,
                                 const std::vector<std::string>& changes) {
    Sink sink;
    Result<Sources> sources = read_folder(folder, sink);
    if (!sources.ok()) return sources.failure();
    return read_sources(sources.take(), std::move(sink), changes);
}

ReadArmoury read_sources(Sources sources, Sink found, const std::vector<std::string>& changes) {
    return resolve(understand_files(std::move(sources), std::move(found)), changes);
}

UnderstoodFiles understand_files(Sources sources, Sink found) {
    UnderstoodFiles files{std::move(sources), std::move(found), {}, {}};
    files.raw = read_files(files.sources, files.sink);
    files.names = {stat_ids(files.raw), stat_names(files.raw), ignored_headers(files.raw),
                   !files.raw.cut_short};
    for (const RawTable& table : files.raw.tables)
        understand_table(table, files.names, files.raw.definitions, files.sink);
    return files;
}

ReadArmoury resolve(UnderstoodFiles files, const std::vector<std::string>& changes) {
    ReadArmoury read{{}, std::move(files.sources), std::move(files.sink), {}};
    Sink& sink = read.sink;
    RawArmoury& raw = files.raw;
    if (read.sources.files().empty()) return read;
    for (const std::string& change : changes)
        apply_what_if(change, read.sources, raw, files.names.stats, sink);
    read.armoury.hash = hash_of(read.sources);
    Names names;
    std::vector<RawDefinition> definitions =
        unique_definitions(std::move(raw.definitions), read.sources, names, sink);
    if (!raw.cut_short) {
        require_single(definitions, "armoury", sink);
        require_single(definitions, "combat", sink);
    }
    for (const auto& [kind, most] : {std::pair("stat", most_stats), std::pair("pool", most_pools),
                                     std::pair("effect", most_effects)}) {
        const std::size_t count = names.all(kind).size();
        if (count <= most) continue;
        sink.mistake({}, fmt::format("{} {}s; at most {} are read", count, kind, most));
        return read;
    }
    add_words(definitions, names);
    Checker checker(names, !raw.cut_short, sink);
    for (RawDefinition& definition : definitions) checker.check(definition);
    apply_patterns(definitions, sink);

    Building building{read.armoury, names, sink, read.sources};
    make_room(building);
    for (const RawDefinition& definition : definitions) build_definition(building, definition);
    read.definitions = std::move(definitions);
    rank_all(read.armoury);
    link(read.armoury, sink);
    order_derived_stats(read.armoury, sink);
    cross_check(read.armoury, sink);
    return read;
}

} // namespace panoplon
