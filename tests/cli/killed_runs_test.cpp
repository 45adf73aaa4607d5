// Runs that are killed at any moment: each file is the former or the new one, and the next run
// gives what an undisturbed one gives.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>
#include <map>
#include <random>

using namespace panoplon;
using namespace panoplon::test;
namespace fs = std::filesystem;

namespace {

/// A hundred with PANOPLON_ALL_FAULTS in the environment.
int kills_or(int usual) {
    return std::getenv("PANOPLON_ALL_FAULTS") ? 100 : usual;
}

/// The files of a folder by name, with their bytes, but for results (they tell when each run was)
/// and what was left over.
std::map<std::string, std::string> files(const TempFolder& folder, const std::string& name) {
    std::map<std::string, std::string> found;
    for (const auto& file : fs::recursive_directory_iterator(folder / name)) {
        const std::string path = fs::relative(file.path(), folder.path()).string();
        if (file.is_regular_file() && path.find("/results.sqlite") == std::string::npos &&
            path.find("/.") == std::string::npos && path.find(".part-") == std::string::npos)
            found[path] = folder.read(path);
    }
    return found;
}

/// A first armoury with a journey, what a command wrote of it, and then a number changed.
struct ChangedFolder : TempFolder {
    explicit ChangedFolder(const std::string& command) {
        REQUIRE(run_program(*this, "new a").exit == 0);
        write("a/journeys.toml", "[journey.way]\ncharacter = \"keeper\"\nstart = \"first\"\n"
                                 "[[journey.way.stage]]\nencounter = \"gate\"\nwins = 8\n");
        REQUIRE(run_program(*this, command).exit == 0);
        fs::create_directories(*this / "former");
        for (const std::string name : {"out", "cache"})
            if (has(name)) fs::copy(*this / name, *this / ("former/" + name), recursive);
        write("a/armoury.toml",
              with(read("a/armoury.toml"), "attack = 10, guard = 5,", "attack = 11, guard = 5,"));
    }
    void put_back() const {
        for (const std::string name : {"out", "cache"}) {
            fs::remove_all(*this / name);
            if (has("former/" + name))
                fs::copy(*this / ("former/" + name), *this / name, recursive);
        }
    }

    static constexpr auto recursive = fs::copy_options::recursive;
};

void check_that_kills_lose_nothing(const std::string& command, int kills) {
    const ChangedFolder folder(command);
    const auto former = files(folder, "out");
    const auto began = std::chrono::steady_clock::now();
    REQUIRE(run_program(folder, command).exit == 0);
    const std::chrono::duration<double> span = std::chrono::steady_clock::now() - began;
    const auto fresh = files(folder, "out");
    REQUIRE(fresh != former);

    std::mt19937 random(20261202);
    std::uniform_real_distribution<double> moment(0, span.count());
    int killed = 0;
    for (int i = 0; i < kills; ++i) {
        folder.put_back();
        const std::string after = fmt::format("{:.3f}", moment(random));
        INFO(command << ", killed after " << after);
        killed += run_and_kill(folder, command, after).exit == 137 ? 1 : 0;
        for (const auto& [path, bytes] : files(folder, "out")) {
            INFO(path);
            const auto was = former.find(path);
            const auto is = fresh.find(path);
            CHECK(((was != former.end() && bytes == was->second) ||
                   (is != fresh.end() && bytes == is->second)));
        }
        CHECK(run_command(folder, "sqlite3 out/results.sqlite 'pragma integrity_check'").out ==
              "ok\n");
        CHECK(run_program(folder, command).exit == 0);
        CHECK(files(folder, "out") == fresh);
        CHECK(leftovers(folder / "out").empty());
    }
    CHECK(killed >= kills / 4);
}

} // namespace

TEST_CASE("program: a killed audit leaves former or new files, and the next makes them good") {
    check_that_kills_lose_nothing("audit a -q -o out --trials 50", kills_or(25));
}

TEST_CASE("program: a killed report leaves former or new files, and the next makes them good") {
    check_that_kills_lose_nothing("report a -q -o out --trials 20", kills_or(10));
}

TEST_CASE("program: a killed journey leaves former or new files, and the next makes them good") {
    check_that_kills_lose_nothing("journey a way -q -o out --trials 200", kills_or(25));
}

TEST_CASE("program: a killed watch leaves former or new files, and the next makes them good") {
    check_that_kills_lose_nothing("watch a --once -o out", kills_or(10));
}

TEST_CASE("program: a killed fight leaves former or new files, and the next makes them good") {
    check_that_kills_lose_nothing("fight a first gate -q -o out --trials 500", kills_or(10));
}
