// The memory of searches as a file: what is written comes back, and nothing else does.
#include "store/memory_file.h"
#include "support/armouries.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <catch2/catch.hpp>
#include <filesystem>
#include <thread>

using namespace panoplon;
using namespace panoplon::test;

namespace {

constexpr std::uint64_t build = 7;
const std::string today = "2026-03-31";

MemoryFile memory_in(const std::string& path) {
    return MemoryFile(path, build, today);
}

/// Answers of keys 1 to `count`, of so many bytes.
void fill(const std::string& path, std::uint64_t count, std::size_t bytes = 200) {
    MemoryFile memory = memory_in(path);
    for (std::uint64_t key = 1; key <= count; ++key)
        memory.keep(key, std::string(bytes, static_cast<char>('a' + key % 20)));
    CHECK(memory.notes().empty());
}

std::size_t known_in(MemoryFile& memory, std::uint64_t count) {
    std::size_t known = 0;
    for (std::uint64_t key = 1; key <= count; ++key) known += memory.find(key).has_value();
    return known;
}

void change(const std::string& path, const std::string& sql) {
    SQLite::Database(path, SQLite::OPEN_READWRITE).exec(sql);
}

std::string bytes_of(const TempFolder& folder, const std::string& name) {
    return folder.read(name);
}

} // namespace

TEST_CASE("memory file: answers come back in another run, from any folder that is made for it") {
    const TempFolder folder;
    const std::string path = folder / "cache/deep/known.sqlite";
    fill(path, 5);
    MemoryFile memory = memory_in(path);
    CHECK(memory.find(3) == std::string(200, 'd'));
    CHECK(memory.find(6) == std::nullopt);
    CHECK(memory.asked() == 2);
    CHECK(memory.answered() == 1);
    memory.keep(3, "other");
    CHECK(memory_in(path).find(3) == "other");
    memory.reject(3);
    CHECK(memory_in(path).find(3) == std::nullopt);
}

TEST_CASE(
    "memory file: what this run has found is not known from before, however often it is asked") {
    const TempFolder folder;
    const std::string path = folder / "known.sqlite";
    fill(path, 2);
    MemoryFile memory = memory_in(path);
    CHECK(memory.find(7) == std::nullopt);
    memory.keep(7, "found");
    memory.keep(8, "found by another rank");
    for (int i = 0; i < 2; ++i)
        for (const std::uint64_t key : {1, 7, 8}) CHECK(memory.find(key).has_value());
    CHECK(memory.asked() == 3);
    CHECK(memory.answered() == 1);
}

TEST_CASE("memory file: what another build found is dropped, and so is what nobody asks for") {
    const TempFolder folder;
    const std::string path = folder / "known.sqlite";
    fill(path, 5);
    {
        MemoryFile later(path, build, "2026-04-20");
        CHECK(later.find(2).has_value());
    }
    MemoryFile month_later(path, build, "2026-05-05");
    CHECK(month_later.notes().empty());
    CHECK(known_in(month_later, 5) == 1);
    MemoryFile other(path, build + 1, "2026-05-05");
    CHECK(known_in(other, 5) == 0);
    REQUIRE(other.notes().size() == 1);
    CHECK(other.notes().front() == "1 answer of another build of the program was dropped");
}

TEST_CASE("memory file: where it grows too large, what was unasked longest goes") {
    const TempFolder folder;
    const std::string path = folder / "known.sqlite";
    fill(path, 30, 1000);
    change(path, "UPDATE answer SET used = '2026-03-20' WHERE key <= 10");
    MemoryFile memory(path, build, today, 25000);
    CHECK(memory.find(10) == std::nullopt);
    CHECK(known_in(memory, 30) == 25);
}

TEST_CASE("memory file: what was changed by another hand is dropped, and said") {
    for (const char* sql :
         {"UPDATE answer SET bytes = x'00' WHERE key = 2",
          "UPDATE answer SET checksum = checksum + 1 WHERE key = 2",
          "UPDATE answer SET key = 99 WHERE key = 2; INSERT INTO answer SELECT 2, build, used, "
          "checksum, bytes FROM answer WHERE key = 3",
          "UPDATE answer SET bytes = 12345 WHERE key = 2",
          "UPDATE answer SET bytes = (SELECT bytes FROM answer WHERE key = 4) WHERE key = 2"}) {
        INFO(sql);
        const TempFolder folder;
        const std::string path = folder / "known.sqlite";
        fill(path, 5);
        change(path, sql);
        MemoryFile memory = memory_in(path);
        CHECK(known_in(memory, 5) == 4);
        REQUIRE(memory.notes().size() == 1);
        CHECK(has(memory.notes().front(), "1 answer"));
        CHECK(known_in(memory, 5) == 4);
    }
}

TEST_CASE("memory file: another schema or format is begun anew, a foreign one is left alone") {
    for (const char* sql : {"DROP TABLE answer; CREATE TABLE answer (key TEXT)",
                            "DROP TABLE answer; CREATE VIEW answer AS SELECT 1 AS key",
                            "ALTER TABLE answer DROP COLUMN used", "PRAGMA user_version = 99",
                            "CREATE TRIGGER t BEFORE INSERT ON answer BEGIN SELECT RAISE(FAIL, "
                            "'no'); END"}) {
        INFO(sql);
        const TempFolder folder;
        const std::string path = folder / "known.sqlite";
        fill(path, 5);
        change(path, sql);
        MemoryFile memory = memory_in(path);
        (void)known_in(memory, 5);
        memory.keep(1, "new");
        memory.keep(2, "new");
        CHECK(memory.find(2) == "new");
        REQUIRE(memory.notes().size() == 1);
        CHECK(has(memory.notes().front(), "begun anew"));
    }
    const TempFolder folder;
    const std::string path = folder / "known.sqlite";
    SQLite::Database(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE)
        .exec("CREATE TABLE mine (a); INSERT INTO mine VALUES (1)");
    const std::string before = bytes_of(folder, "known.sqlite");
    MemoryFile memory = memory_in(path);
    memory.keep(1, "x");
    CHECK(memory.find(1) == std::nullopt);
    REQUIRE(memory.notes().size() == 1);
    CHECK(has(memory.notes().front(), "none of this program's"));
    CHECK(bytes_of(folder, "known.sqlite") == before);
}

TEST_CASE("memory file: whatever bytes are damaged, an answer is as it was written or not there") {
    const TempFolder folder;
    fill(folder / "whole.sqlite", 40);
    const std::string whole = bytes_of(folder, "whole.sqlite");
    REQUIRE(whole.size() > 10000);
    std::uint64_t state = 1;
    const auto draw = [&](std::size_t below) {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return static_cast<std::size_t>((state >> 33) % below);
    };
    std::size_t lost = 0;
    for (int i = 0; i < 200; ++i) {
        std::string damaged = whole;
        if (i % 4 == 0) {
            damaged.resize(draw(whole.size()));
        } else {
            for (std::size_t n = 0; n <= draw(30); ++n)
                damaged[draw(i % 4 == 1 ? 600 : whole.size())] = static_cast<char>(draw(256));
        }
        folder.write("k.sqlite", damaged);
        MemoryFile memory = memory_in(folder / "k.sqlite");
        for (std::uint64_t key = 1; key <= 40; ++key) {
            const auto answer = memory.find(key);
            lost += !answer;
            if (answer) CHECK(*answer == std::string(200, static_cast<char>('a' + key % 20)));
        }
        memory.keep(50, "after");
        (void)memory.notes();
    }
    CHECK(lost > 0);
}

TEST_CASE("memory file: where no file can be, nothing is kept, and that is said") {
    const TempFolder folder;
    folder.write("a_file", "x");
    MemoryFile memory = memory_in(folder / "a_file/known.sqlite");
    memory.keep(1, "x");
    CHECK(memory.find(1) == std::nullopt);
    REQUIRE(memory.notes().size() == 1);
    CHECK(has(memory.notes().front(), "can't be kept"));
    std::filesystem::create_directory(folder / "known.sqlite");
    CHECK(memory_in(folder / "known.sqlite").notes().size() == 1);
}

TEST_CASE("memory file: several runs and threads at once") {
    const TempFolder folder;
    const std::string path = folder / "known.sqlite";
    MemoryFile one = memory_in(path);
    MemoryFile other = memory_in(path);
    const auto work = [](MemoryFile& memory, std::uint64_t first) {
        for (std::uint64_t key = first; key < first + 50; ++key) {
            memory.keep(key, "answer of " + std::to_string(key));
            (void)memory.find(key);
        }
    };
    std::vector<std::thread> threads;
    for (std::uint64_t t = 0; t < 4; ++t)
        threads.emplace_back(work, std::ref(t % 2 ? one : other), 1 + 50 * t);
    for (std::thread& thread : threads) thread.join();
    CHECK(one.notes().empty());
    CHECK(known_in(one, 200) == 200);
    CHECK(known_in(other, 200) == 200);
}
