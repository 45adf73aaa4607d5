#include "store/results_file.h"

#include "base/disk.h"
#include "base/text.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <set>
#include <unistd.h>

namespace panoplon {

namespace {

constexpr int format_of_file = 1; ///< user_version
constexpr int busy_milliseconds = 10000;

/// The program's own mark in the file's header: "Pnpl".
constexpr int application_mark = 0x506e706c;

Failure store_failure(const std::string& what, const std::string& path, const std::string& why) {
    return {Cause::file, fmt::format("can't {} '{}': {}", what, path, why), {}};
}

constexpr const char* what_is_there = "what is there is no file";

/// A name as SQL has it: in quotes, whatever is in it.
std::string quoted(const std::string& name) {
    std::string text = "\"";
    for (const char c : name) text += c == '"' ? std::string("\"\"") : std::string(1, c);
    return text + "\"";
}

std::string table_name(const std::string& csv_name) {
    std::string name = csv_name;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
}

/// Numbers in full; truths as words; an empty text is nothing.
void bind_cell(SQLite::Statement& statement, int at, const Cell& cell) {
    if (const auto* whole = std::get_if<std::int64_t>(&cell.value())) {
        statement.bind(at, *whole);
    } else if (const auto* number = std::get_if<double>(&cell.value())) {
        statement.bind(at, *number);
    } else if (const std::string text = file_text_of(Column(), cell); !text.empty()) {
        statement.bind(at, text);
    } else {
        statement.bind(at);
    }
}

std::set<std::string> columns_of(SQLite::Database& database, const std::string& table) {
    std::set<std::string> names;
    SQLite::Statement columns(database, fmt::format("PRAGMA table_info({})", quoted(table)));
    while (columns.executeStep()) names.insert(columns.getColumn(1).getString());
    return names;
}

/// The table with every column that the rows have; columns that came later are empty before.
void provide_table(SQLite::Database& database, const std::string& name,
                   const std::vector<std::string>& headers, bool of_run) {
    const std::string run = of_run ? "run INTEGER NOT NULL REFERENCES run(id)" : "";
    if (!database.tableExists(name)) {
        std::vector<std::string> columns;
        if (of_run) columns.push_back(run);
        for (const std::string& header : headers) columns.push_back(quoted(header));
        database.exec(fmt::format("CREATE TABLE {} ({})", quoted(name), join(columns, ", ")));
        if (of_run)
            database.exec(
                fmt::format("CREATE INDEX {} ON {} (run)", quoted(name + "_by_run"), quoted(name)));
        return;
    }
    const std::set<std::string> there = columns_of(database, name);
    for (const std::string& header : headers)
        if (!there.contains(header))
            database.exec(
                fmt::format("ALTER TABLE {} ADD COLUMN {}", quoted(name), quoted(header)));
}

void add_rows(SQLite::Database& database, const Table& table, std::optional<std::int64_t> run) {
    const std::string name = table_name(table.name);
    std::vector<std::string> headers, columns, places;
    if (run) {
        columns.emplace_back("run");
        places.emplace_back("?");
    }
    for (const Column& column : table.columns) {
        if (column.key.empty()) continue;
        headers.push_back(column.key);
        columns.push_back(quoted(column.key));
        places.emplace_back("?");
    }
    provide_table(database, name, headers, run.has_value());
    SQLite::Statement insert(database, fmt::format("INSERT INTO {} ({}) VALUES ({})", quoted(name),
                                                   join(columns, ", "), join(places, ", ")));
    for (const auto& row : table.rows) {
        int at = 1;
        if (run) insert.bind(at++, *run);
        for (std::size_t c = 0; c < row.size(); ++c)
            if (!table.columns[c].key.empty()) bind_cell(insert, at++, row[c]);
        insert.exec();
        insert.reset();
    }
}

void provide_runs(SQLite::Database& database) {
    database.exec("CREATE TABLE IF NOT EXISTS run (id INTEGER PRIMARY KEY, command TEXT NOT NULL, "
                  "arguments TEXT NOT NULL, armoury TEXT NOT NULL, hash TEXT NOT NULL, "
                  "version TEXT NOT NULL, seed TEXT NOT NULL, time TEXT NOT NULL, "
                  "partial INTEGER NOT NULL, UNIQUE (command, arguments, armoury, hash))");
    database.exec(fmt::format("PRAGMA application_id = {}", application_mark));
    database.exec(fmt::format("PRAGMA user_version = {}", format_of_file));
}

void forget_rows(SQLite::Database& database, std::int64_t run) {
    std::vector<std::string> tables;
    {
        SQLite::Statement all(database, "SELECT name FROM sqlite_master WHERE type = 'table'");
        while (all.executeStep()) tables.push_back(all.getColumn(0).getString());
    }
    for (const std::string& table : tables) {
        if (!columns_of(database, table).contains("run")) continue;
        SQLite::Statement remove(database,
                                 fmt::format("DELETE FROM {} WHERE run = ?", quoted(table)));
        remove.bind(1, run);
        remove.exec();
    }
}

/// The run's number: the former one's, whose rows are gone then, or a new one.
std::int64_t provide_run(SQLite::Database& database, const Run& run) {
    {
        SQLite::Statement former(database, "SELECT id FROM run WHERE command = ? AND arguments = ? "
                                           "AND armoury = ? AND hash = ?");
        former.bind(1, run.command);
        former.bind(2, run.arguments);
        former.bind(3, run.armoury);
        former.bind(4, run.hash);
        if (former.executeStep()) {
            const std::int64_t id = former.getColumn(0).getInt64();
            forget_rows(database, id);
            SQLite::Statement again(database, "UPDATE run SET version = ?, seed = ?, time = ?, "
                                              "partial = ? WHERE id = ?");
            again.bind(1, run.version);
            again.bind(2, std::to_string(run.seed));
            again.bind(3, run.time);
            again.bind(4, run.partial ? 1 : 0);
            again.bind(5, id);
            again.exec();
            return id;
        }
    }
    SQLite::Statement insert(database,
                             "INSERT INTO run (command, arguments, armoury, hash, version, "
                             "seed, time, partial) VALUES (?, ?, ?, ?, ?, ?, ?, ?)");
    insert.bind(1, run.command);
    insert.bind(2, run.arguments);
    insert.bind(3, run.armoury);
    insert.bind(4, run.hash);
    insert.bind(5, run.version);
    insert.bind(6, std::to_string(run.seed));
    insert.bind(7, run.time);
    insert.bind(8, run.partial ? 1 : 0);
    insert.exec();
    return database.getLastInsertRowid();
}

/// A file of someone else's, or of a later program, is left alone.
std::optional<std::string> not_ours(SQLite::Database& database) {
    const int mark = database.execAndGet("PRAGMA application_id").getInt();
    const int tables = database.execAndGet("SELECT count(*) FROM sqlite_master").getInt();
    if (tables > 0 && mark != application_mark) return "it is no file of results";
    if (database.execAndGet("PRAGMA user_version").getInt() > format_of_file)
        return "a later version wrote it";
    return std::nullopt;
}

} // namespace

Result<std::string> keep_run(const std::string& path, const Run& run,
                             const std::vector<Table>& tables) {
    if (is_no_file(path)) return store_failure("add to", path, what_is_there);
    try {
        SQLite::Database database(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE,
                                  busy_milliseconds);
        if (const auto why = not_ours(database)) return store_failure("add to", path, *why);
        SQLite::Transaction transaction(database);
        provide_runs(database);
        const std::int64_t id = provide_run(database, run);
        for (const Table& table : tables) add_rows(database, table, id);
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        return store_failure("add to", path, error.getErrorStr());
    }
    return path;
}

Result<std::vector<KeptRun>> kept_runs(const std::string& path, const std::string& armoury) {
    std::vector<KeptRun> runs;
    if (is_no_file(path)) return store_failure("read", path, what_is_there);
    try {
        SQLite::Database database(path, SQLite::OPEN_READONLY, busy_milliseconds);
        if (const auto why = not_ours(database)) return store_failure("read", path, *why);
        if (!database.tableExists("run")) return runs;
        SQLite::Statement select(database,
                                 "SELECT id, command, arguments, armoury, hash, version, seed, "
                                 "time, partial FROM run WHERE armoury = ? ORDER BY time, id");
        select.bind(1, armoury);
        while (select.executeStep()) {
            KeptRun run;
            run.id = select.getColumn(0).getInt64();
            run.command = select.getColumn(1).getString();
            run.arguments = select.getColumn(2).getString();
            run.armoury = select.getColumn(3).getString();
            run.hash = select.getColumn(4).getString();
            run.version = select.getColumn(5).getString();
            run.seed = std::stoull(select.getColumn(6).getString());
            run.time = select.getColumn(7).getString();
            run.partial = select.getColumn(8).getInt() != 0;
            runs.push_back(std::move(run));
        }
    } catch (const SQLite::Exception& error) {
        return store_failure("read", path, error.getErrorStr());
    }
    return runs;
}

Result<std::vector<std::vector<std::string>>> kept_rows(const std::string& path, std::int64_t run,
                                                        const std::string& table,
                                                        const std::vector<std::string>& columns) {
    std::vector<std::vector<std::string>> rows;
    try {
        SQLite::Database database(path, SQLite::OPEN_READONLY, busy_milliseconds);
        const std::string name = table_name(table);
        if (!database.tableExists(name)) return rows;
        const std::set<std::string> there = columns_of(database, name);
        std::vector<std::string> asked;
        for (const std::string& column : columns) {
            if (!there.contains(column)) return rows;
            asked.push_back(quoted(column));
        }
        SQLite::Statement select(database, fmt::format("SELECT {} FROM {} WHERE run = ? "
                                                       "ORDER BY rowid",
                                                       join(asked, ", "), quoted(name)));
        select.bind(1, run);
        while (select.executeStep()) {
            std::vector<std::string> row;
            for (int i = 0; i < select.getColumnCount(); ++i)
                row.push_back(select.getColumn(i).getString());
            rows.push_back(std::move(row));
        }
    } catch (const SQLite::Exception& error) {
        return store_failure("read", path, error.getErrorStr());
    }
    return rows;
}

Result<std::string> write_sqlite(const std::string& path, const std::vector<Table>& tables) {
    const std::string beside = fmt::format("{}.part-{}", path, getpid());
    std::error_code error;
    if (is_no_file(path)) return store_failure("write", path, what_is_there);
    std::filesystem::remove(beside, error);
    try {
        SQLite::Database database(beside, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        SQLite::Transaction transaction(database);
        for (const Table& table : tables) add_rows(database, table, std::nullopt);
        transaction.commit();
    } catch (const SQLite::Exception& failed) {
        std::filesystem::remove(beside, error);
        return store_failure("write", path, failed.getErrorStr());
    }
    std::filesystem::rename(beside, path, error);
    if (!error) return path;
    const std::string why = error.message();
    std::filesystem::remove(beside, error);
    return store_failure("write", path, why);
}

} // namespace panoplon
