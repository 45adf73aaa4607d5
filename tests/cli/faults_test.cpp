// Every call by which the program writes, made to fail: the former file stays or the new one is
// whole, and it says what went wrong.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>
#include <map>

using namespace panoplon;
using namespace panoplon::test;
namespace fs = std::filesystem;

namespace {

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
constexpr bool can_preload = false; // before the sanitizer's own calls
#else
constexpr bool can_preload = true;
#endif

using Files = std::map<std::string, std::string>;

/// What stands below a folder, but for databases, which have bytes of a time and an order of pages.
Files files_below(const TempFolder& folder, const std::string& below) {
    Files files;
    if (!fs::exists(folder / below)) return files;
    for (const auto& entry : fs::recursive_directory_iterator(folder / below)) {
        const std::string name = entry.path().lexically_relative(folder.path()).string();
        if (entry.is_regular_file() && !has(name, ".sqlite")) files[name] = folder.read(name);
    }
    return files;
}

/// One command, before which the folder `out` is as `former` says.
struct Trial {
    const TempFolder& folder;
    std::string command;

    [[nodiscard]] Run run(const std::string& kind, int at) const {
        fs::remove_all(folder / "out");
        if (fs::exists(folder / "former"))
            fs::copy(folder / "former", folder / "out", fs::copy_options::recursive);
        return run_program(folder, command,
                           fmt::format("FAULT_KIND={} FAULT_AT={} FAULT_COUNT=\"$PWD/count\" "
                                       "LD_PRELOAD='" PANOPLON_FAULTS "'",
                                       kind, at));
    }

    /// Fails each `step`-th call of a kind. Returns how many runs did not end well.
    int fail_each(const std::string& kind, int step) const {
        CHECK(run(kind, 0).exit == 0);
        const int calls = std::atoi(folder.read("count").c_str());
        const Files fresh = files_below(folder, "out");
        const Files former = files_below(folder, "former");
        int failed = 0;
        for (int at = 1; at <= calls; at += step) {
            INFO(command << ", " << kind << " " << at << " of " << calls);
            const Run faulty = run(kind, at);
            INFO(faulty.err);
            CHECK((faulty.exit >= 0 && faulty.exit <= 3));
            CHECK((faulty.exit == 0 || !faulty.err.empty()));
            CHECK_FALSE(has(faulty.err, "a fault of its own"));
            failed += faulty.exit != 0 ? 1 : 0;
            for (const auto& [name, text] : files_below(folder, "out")) {
                INFO(name);
                const auto before = former.find("former" + name.substr(3));
                const auto now = fresh.find(name);
                CHECK(((before != former.end() && before->second == text) ||
                       (now != fresh.end() && now->second == text)));
            }
        }
        return failed;
    }
};

/// All of them with PANOPLON_ALL_FAULTS in the environment.
int step_of(int usual) {
    return std::getenv("PANOPLON_ALL_FAULTS") ? 1 : usual;
}

/// Fails calls of a command before which `former` has written `out`; empty: nothing has.
void fail_all(const std::string& former, const std::string& command, int step) {
    if (!can_preload) return;
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    if (!former.empty()) {
        REQUIRE(run_program(folder, former).exit == 0);
        fs::rename(folder / "out", folder / "former");
    }
    REQUIRE(run_program(folder, command).exit == 0); // what it finds is known from here on
    int failed = 0;
    for (const char* kind : {"open", "write", "rename", "sync", "folder"})
        failed += Trial{folder, command}.fail_each(kind, step_of(step));
    CHECK(failed >= 3);
}

} // namespace

TEST_CASE("program: whatever call of a fight fails, each file is the former or whole") {
    fail_all("fight a first post --level 3 --trials 20 -o out -q",
             "fight a first post --level 3 --trials 30 -o out -q", 1);
}

TEST_CASE("program: whatever call of a report fails, each file is the former or whole") {
    fail_all("report a --trials 20 -o out -q", "report a --trials 30 -o out -q", 7);
}

TEST_CASE("program: whatever call of an export fails, each file is whole or absent") {
    fail_all("", "export a --xlsx out", 1);
    fail_all("", "export a --sqlite out.db", 1);
}

TEST_CASE("program: without memory it says so, and leaves no half file") {
    if (!can_preload) return;
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const Trial trial{folder, "fight a first post --level 3 --trials 20 -o out -q"};
    REQUIRE(trial.run("memory", 0).exit == 0);
    const int calls = std::atoi(folder.read("count").c_str());
    const Files fresh = files_below(folder, "out");
    int told = 0;
    for (int at = 1; at <= calls; at += at < 20 ? 1 : calls / step_of(40) + 1) {
        INFO(at << " of " << calls);
        const Run run = trial.run("memory", at);
        INFO(run.err);
        CHECK((run.exit == 0 || run.exit == 3));
        told += has(run.err, "there is not enough memory") ? 1 : 0;
        for (const auto& [name, text] : files_below(folder, "out")) {
            INFO(name);
            if (has(name, "/.") || has(name, ".part-")) continue; // the next run takes these away
            const auto now = fresh.find(name);
            CHECK((now != fresh.end() && now->second == text));
        }
    }
    CHECK(told >= 10);
}
