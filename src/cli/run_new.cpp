#include "armoury/keys.h"
#include "cli/session.h"
#include "demo/files.h"
#include "show/written_files.h"

#include <filesystem>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

bool fits_a_cell(Type type) {
    switch (type) {
    case Type::table:
    case Type::tables:
    case Type::worn:
    case Type::wanted_items:
    case Type::growths:
    case Type::amounts:
    case Type::pool_quantities:
    case Type::pool_formulas:
    case Type::damage_formulas:
    case Type::counts: return false;
    default: return true;
    }
}

/// The names that an armoury's tables of names hold: stats, and pools.
struct NamesFor {
    std::vector<std::string> stats, pools;
};

/// A key by itself, or one key for each name that it is a table of. Stats of `add` stand bare.
void add_headers(const KeyRow& row, const NamesFor& names, std::vector<std::string>& headers) {
    const std::string path(row.path);
    const auto add_each = [&](const std::string& parent, const std::vector<std::string>& all) {
        for (const std::string& name : all) headers.push_back(parent + name);
    };
    switch (row.type) {
    case Type::table:
        for (const KeyRow& inner : key_rows())
            if (inner.kind == row.kind && directly_under(inner.path, row.path))
                add_headers(inner, names, headers);
        break;
    case Type::amounts:
    case Type::growths:
        if (path != "times") add_each(path == "add" ? "" : path + ".", names.stats);
        break;
    case Type::pool_quantities:
    case Type::pool_formulas: add_each(path + ".", names.pools); break;
    default:
        if (fits_a_cell(row.type)) headers.push_back(path);
    }
}

/// The header line of an empty table: the keys that a cell can hold, of tables within it, too, and
/// the armoury's stats and pools.
std::string headers_of(const std::string& kind, const NamesFor& names) {
    std::vector<std::string> headers = {kind, "name"};
    for (const KeyRow& row : key_rows())
        if (row.kind == kind && directly_under(row.path, "") && row.path != "name" &&
            row.path != "todo" && row.path != "allow")
            add_headers(row, names, headers);
    return join(headers, ",") + "\n";
}

/// Those of the armoury that --for names.
Result<NamesFor> names_for(const Invocation& invocation) {
    NamesFor names;
    if (!invocation.has("for")) return names;
    const Result<ReadArmoury> read = read_armoury(invocation.value("for"));
    if (!read.ok()) return read.failure();
    for (const Stat& stat : read.value().armoury.stats) names.stats.push_back(stat.id);
    for (const Pool& pool : read.value().armoury.pools) names.pools.push_back(pool.id);
    return names;
}

int write_table(const Invocation& invocation, const std::string& path) {
    const std::string kind = invocation.value("table");
    const KindRow* row = find_kind(kind);
    if (!row || row->single) {
        std::vector<std::string> names;
        for (const KindRow& one : kind_rows())
            if (!one.single) names.emplace_back(one.name);
        const auto near = nearest_name(kind, names);
        return report_failure({Cause::usage,
                               fmt::format("--table is '{}'{}", kind,
                                           near ? fmt::format("; did you mean '{}'?", *near) : ""),
                               "kinds: " + join(names, ", ")});
    }
    if (!path.ends_with(".csv"))
        return report_failure({Cause::usage, fmt::format("'{}' is no name of a table", path),
                               "it ends with .csv, or nothing would read it"});
    std::error_code error;
    if (fs::exists(path, error))
        return report_failure(
            {Cause::refused, fmt::format("'{}' is there already", path), "name a new file"});
    const Result<NamesFor> names = names_for(invocation);
    if (!names.ok()) return report_failure(names.failure());
    const Result<std::string> written = write_whole(path, headers_of(kind, names.value()));
    if (!written.ok()) return report_failure(written.failure());
    return outlet().say(fmt::format("wrote {}: a row for each {}; empty cells are keys not given\n",
                                    path, kind))
               ? Exit::done
               : Exit::file_trouble;
}

} // namespace

int run_new(const Invocation& invocation) {
    const std::string& place = invocation.operands().front();
    if (invocation.has("table")) return write_table(invocation, place);
    if (invocation.has("for")) return report_failure({Cause::usage, "--for goes with --table", {}});
    if (place.ends_with(".csv") || place.ends_with(".toml"))
        return report_failure(
            {Cause::usage,
             fmt::format("'{}' is the name of a file, and an armoury is a folder", place),
             "--table KIND writes an empty table"});
    const Result<std::vector<std::string>> written = write_embedded(starter_files(), place);
    if (!written.ok()) return report_failure(written.failure());
    std::string text = fmt::format("Started an armoury in {}:\n", place);
    for (const std::string& path : written.value()) text += fmt::format("  {}\n", path);
    text += fmt::format("Read {0}/armoury.toml, then: panoplon check {0}\n", place);
    return outlet().say(text) ? Exit::done : Exit::file_trouble;
}

} // namespace panoplon
