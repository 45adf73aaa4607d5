#include "store/memory_file.h"

#include "base/text.h"

#include <filesystem>
#include <fmt/format.h>
#include <sqlite3.h>

namespace panoplon {

namespace {

constexpr int format_of_memory = 1;        ///< user_version
constexpr int mark_of_memory = 0x506e704b; ///< application_id: "PnpK"
constexpr int patience = 2000;             ///< milliseconds, where another run writes
constexpr const char* days_kept = "-30 days";

std::int64_t signed_of(std::uint64_t number) {
    return static_cast<std::int64_t>(number);
}

/// What can't be mended by waiting for another run, or by making room on the disk.
bool is_damage(const SQLite::Exception& error) {
    const int code = error.getErrorCode();
    return code == SQLITE_CORRUPT || code == SQLITE_NOTADB || code == SQLITE_ERROR ||
           code == SQLITE_MISMATCH || code == SQLITE_CONSTRAINT || code == SQLITE_FORMAT;
}

void remove_database(const std::string& path) {
    std::error_code error;
    for (const char* end : {"", "-wal", "-shm", "-journal"})
        std::filesystem::remove(path + end, error);
}

} // namespace

MemoryFile::MemoryFile(std::string path, std::uint64_t build, const std::string& today,
                       std::int64_t most_bytes)
    : path_(std::move(path)),
      build_(build),
      today_(today),
      most_bytes_(most_bytes) {
    std::error_code error;
    std::filesystem::create_directories(std::filesystem::path(path_).parent_path(), error);
    use([&] {
        open();
        drop_old();
    });
}

void MemoryFile::open() {
    database_ = std::make_unique<SQLite::Database>(
        path_, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, patience);
    database_->exec("PRAGMA trusted_schema = OFF; PRAGMA cell_size_check = ON");
    if (database_->execAndGet("SELECT count(*) FROM sqlite_master").getInt() > 0) {
        if (database_->execAndGet("PRAGMA application_id").getInt() != mark_of_memory) {
            database_.reset();
            trouble_ = "it is none of this program's";
            return;
        }
        if (database_->execAndGet("PRAGMA user_version").getInt() != format_of_memory) begin_anew();
    }
    database_->exec("PRAGMA journal_mode = WAL; PRAGMA synchronous = NORMAL");
    database_->exec(fmt::format(
        "BEGIN IMMEDIATE; CREATE TABLE IF NOT EXISTS answer (key INTEGER PRIMARY KEY, build "
        "INTEGER NOT NULL, used TEXT NOT NULL, checksum INTEGER NOT NULL, bytes BLOB NOT NULL); "
        "PRAGMA application_id = {}; PRAGMA user_version = {}; COMMIT",
        mark_of_memory, format_of_memory));
    opened_ = true;
}

void MemoryFile::begin_anew() {
    database_.reset();
    remove_database(path_);
    ++begun_anew_;
    database_ = std::make_unique<SQLite::Database>(
        path_, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, patience);
}

/// Does work on the file. A damaged one is put away and another begun, once.
template <class Work>
void MemoryFile::use(const Work& work) {
    if (!trouble_.empty()) return;
    try {
        work();
    } catch (const SQLite::Exception& error) {
        if (opened_ && error.getErrorCode() == SQLITE_BUSY) return; // another run writes
        trouble_ = error.what();
        database_.reset();
        if (!is_damage(error) || begun_anew_ > 0) return;
        try {
            begin_anew();
            open();
            trouble_.clear();
        } catch (const SQLite::Exception& another) {
            database_.reset();
            trouble_ = another.what();
        }
    }
}

void MemoryFile::drop_old() {
    if (!opened_) return;
    SQLite::Statement others(*database_, "DELETE FROM answer WHERE build != ?");
    others.bind(1, signed_of(build_));
    of_others_ = static_cast<std::size_t>(others.exec());
    SQLite::Statement unasked(*database_, "DELETE FROM answer WHERE used < date(?, ?)");
    unasked.bind(1, today_);
    unasked.bind(2, days_kept);
    unasked.exec();
    SQLite::Statement longest(
        *database_, "DELETE FROM answer WHERE key IN (SELECT key FROM (SELECT key, sum(length("
                    "bytes)) OVER (ORDER BY used DESC, key) AS so_far FROM answer) WHERE so_far > "
                    "?)");
    longest.bind(1, most_bytes_);
    longest.exec();
}

std::uint64_t MemoryFile::checksum(std::uint64_t key, const std::string& answer) const {
    return hash_text(answer, hash_text(fmt::format("{} {}", build_, key)));
}

void MemoryFile::drop(std::uint64_t key) {
    ++damaged_;
    SQLite::Statement statement(*database_, "DELETE FROM answer WHERE key = ?");
    statement.bind(1, signed_of(key));
    statement.exec();
}

std::optional<std::string> MemoryFile::find(std::uint64_t key) {
    const std::lock_guard lock(mutex_);
    std::optional<std::string> answer;
    use([&] {
        const auto [asked, is_first] = asked_.emplace(key, false);
        SQLite::Statement row(*database_, "SELECT bytes, checksum, used FROM answer WHERE key = ?");
        row.bind(1, signed_of(key));
        if (!row.executeStep()) return;
        const std::string bytes = row.getColumn(0).getString();
        const bool sound = row.getColumn(1).getInt64() == signed_of(checksum(key, bytes));
        const bool of_today = row.getColumn(2).getString() == today_;
        row.reset();
        if (!sound) {
            drop(key);
            return;
        }
        if (!of_today) {
            SQLite::Statement used(*database_, "UPDATE answer SET used = ? WHERE key = ?");
            used.bind(1, today_);
            used.bind(2, signed_of(key));
            used.exec();
        }
        answer = bytes;
        if (!is_first || kept_.contains(key)) return;
        asked->second = true;
        ++answered_;
    });
    return answer;
}

void MemoryFile::keep(std::uint64_t key, const std::string& answer) {
    const std::lock_guard lock(mutex_);
    kept_.insert(key);
    use([&] {
        SQLite::Statement row(*database_, "INSERT OR REPLACE INTO answer VALUES (?, ?, ?, ?, ?)");
        row.bind(1, signed_of(key));
        row.bind(2, signed_of(build_));
        row.bind(3, today_);
        row.bind(4, signed_of(checksum(key, answer)));
        row.bind(5, answer.data(), static_cast<int>(answer.size()));
        row.exec();
    });
}

void MemoryFile::reject(std::uint64_t key) {
    const std::lock_guard lock(mutex_);
    bool& known = asked_[key];
    answered_ -= known ? 1 : 0;
    known = false;
    use([&] { drop(key); });
}

std::vector<std::string> MemoryFile::notes() const {
    std::vector<std::string> notes;
    if (begun_anew_ > 0)
        notes.push_back(
            fmt::format("'{}' was damaged or of another version, and was begun anew", path_));
    if (of_others_ > 0)
        notes.push_back(fmt::format("{} of another build of the program {} dropped",
                                    counted(of_others_, "answer"),
                                    of_others_ == 1 ? "was" : "were"));
    if (damaged_ > 0)
        notes.push_back(fmt::format(
            "{} in '{}' {} not what had been written, and {} dropped", counted(damaged_, "answer"),
            path_, damaged_ == 1 ? "was" : "were", damaged_ == 1 ? "was" : "were"));
    if (!trouble_.empty())
        notes.push_back(fmt::format("what is found can't be kept in '{}': {}", path_, trouble_));
    return notes;
}

} // namespace panoplon
