// The installed library: a program outside of this tree is built against it, by its CMake package
// and by pkg-config, and Python calls its C function.
#include "support/program.h"

#include "panoplon/fight.h"
#include "panoplon/judge.h"
#include "panoplon/run.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <stdexcept>
#include <thread>

using namespace panoplon::test;
namespace core = panoplon::core;

namespace {

/// The reply of the C function, taken apart; null where there was none. Several threads call it at
/// once, so it may not check anything.
nlohmann::ordered_json reply(const std::string& armoury, const char* command, const char* options) {
    char* text = panoplon_run(armoury.c_str(), command, options);
    auto json = nlohmann::ordered_json::parse(text ? text : "null");
    panoplon_free(text);
    return json;
}

constexpr const char* program = R"(#include <cstdio>
#include <panoplon/fight.h>
#include <panoplon/judge.h>
#include <panoplon/run.h>

int main(int, char** arguments) {
    using namespace panoplon::core;
    const Armoury armoury = Armoury::read(arguments[1]);
    for (const Finding& one : armoury.mistakes()) std::printf("%s\n", one.message.c_str());
    if (!armoury.usable()) return 1;
    const FightOutcome outcome = fight(armoury, {"ringer_early", "causeway", 6, 200, 1});
    std::printf("wins %.3f margin %.3f\n", outcome.win_share, outcome.margin);
    const BestOutfit found = best(armoury, {"ringer", "ford", 5});
    std::printf("best %.3f, %zu worn\n", found.margin, found.worn.size());
    char* reply = panoplon_run(arguments[1], "check", nullptr);
    const bool good = reply != nullptr;
    panoplon_free(reply);
    return good ? 0 : 1;
}
)";

constexpr const char* lists = R"(cmake_minimum_required(VERSION 3.25)
project(outside CXX)
find_package(panoplon 0.1 REQUIRED)
add_executable(outside main.cpp)
target_link_libraries(outside PRIVATE panoplon::core)
)";

constexpr const char* script = R"(import ctypes, json, sys
lib = ctypes.CDLL(sys.argv[1])
lib.panoplon_run.restype = ctypes.c_void_p
lib.panoplon_run.argtypes = [ctypes.c_char_p] * 3
lib.panoplon_free.argtypes = [ctypes.c_void_p]
options = {"operands": ["ringer_early", "causeway"], "level": 6, "trials": 200}
text = lib.panoplon_run(sys.argv[2].encode(), b"fight", json.dumps(options).encode())
reply = json.loads(ctypes.string_at(text))
lib.panoplon_free(text)
print("wins %.3f margin %.3f" % (reply["wins"]["share"], reply["even_luck"]["margin"]))
)";

} // namespace

TEST_CASE("the library gives the numbers that the program tells", "[face]") {
    const DemoFolder demo;
    const core::Armoury armoury = core::Armoury::read(demo / "a");
    REQUIRE(armoury.usable());
    CHECK(armoury.ids("loadout").size() == 10);
    CHECK(armoury.ids("nothing").empty());
    CHECK(armoury.doubts().size() == 6);
    const core::FightOutcome outcome =
        core::fight(armoury, {"ringer_early", "causeway", 6, 200, 1});
    const auto told = nlohmann::json::parse(
        run_program(demo, "fight a ringer_early causeway --level 6 --trials 200 --json").out);
    CHECK(outcome.win_share == told["wins"]["share"]);
    CHECK(outcome.win_low == told["wins"]["low"]);
    CHECK(outcome.mean_time == told["time"]["mean"]);
    CHECK(outcome.margin == told["even_luck"]["margin"]);
    CHECK(outcome.even_time == told["even_luck"]["time"]);

    const core::BestOutfit found = core::best(armoury, {"ringer", "ford", 5});
    const auto best = nlohmann::json::parse(
        run_program(demo, "best a --character ringer --encounter ford --level 5 --bound-fights 0 "
                          "--json")
            .out);
    CHECK(found.margin == best["contexts"][0]["margin"]);
    CHECK(found.worn.size() > 3);

    core::AuditQuery query;
    query.characters = {"ringer"};
    query.encounters = {"ford"};
    query.first_level = query.last_level = 5;
    const auto audit = nlohmann::json::parse(
        run_program(demo, "audit a --character ringer --encounter ford --level 5 --json").out);
    std::map<std::string, std::string> verdicts;
    for (const auto& one : audit["items"])
        verdicts[one["id"].get<std::string>()] = one["verdict"].get<std::string>();
    for (const core::ItemVerdict& one : core::audit(armoury, query)) {
        INFO(one.item);
        CHECK(one.verdict == verdicts[one.item]);
    }
}

TEST_CASE("the library refuses with words", "[face]") {
    const DemoFolder demo;
    CHECK_THROWS_AS(core::Armoury::read(demo / "nowhere"), std::runtime_error);
    const core::Armoury armoury = core::Armoury::read(demo / "a");
    CHECK_THROWS_WITH(core::fight(armoury, {"nobody", "ford"}), "unknown loadout 'nobody'");
    CHECK_THROWS_WITH(core::fight(armoury, {"ringer_early", "ford", 99}),
                      "the armoury has no level 99");
    CHECK_THROWS_WITH(core::best(armoury, {"ringer", "nowhere", 5}), "unknown encounter 'nowhere'");
    CHECK_THROWS_AS(core::fight(armoury, {"ringer_late", "ford", 1}), std::runtime_error);
    demo.write("a/x.toml", "[item.x]\nsolt = \"head\"\n");
    const core::Armoury broken = core::Armoury::read(demo / "a");
    CHECK_FALSE(broken.usable());
    REQUIRE(broken.mistakes().size() == 1);
    CHECK(broken.mistakes()[0].file == "x.toml");
    CHECK(broken.mistakes()[0].line == 2);
    CHECK_THROWS_WITH(core::best(broken, {"ringer", "ford", 5}), "the armoury has mistakes");
}

TEST_CASE("the function in C replies in JSON, whatever it is asked, from any thread", "[face]") {
    const DemoFolder demo;
    const std::string a = demo / "a";
    const auto fought = reply(
        a, "fight", R"({"operands": ["ringer_early", "causeway"], "level": 6, "trials": 200})");
    CHECK(fought["exit"] == 0);
    CHECK(fought["trials"] == 200);
    const auto changed =
        reply(a, "fight",
              R"({"operands": ["ringer_early", "causeway"], "level": 6, "even-luck": true,
                  "set": ["item.oak_clapper.add.attack=0", "item.hand_bell.add.attack=0"]})");
    CHECK(changed["even_luck"]["margin"] < fought["even_luck"]["margin"]);
    for (const auto& [command, options] :
         {std::pair{"fight", "{\"operands\": [\"nobody\", \"ford\"]}"},
          {"fight", "[1]"},
          {"fight", "{"},
          {"nothing", "{}"},
          {"check", "{\"levle\": 3}"}}) {
        INFO(options);
        const auto refused = reply(a, command, options);
        CHECK(refused["exit"] != 0);
        CHECK_FALSE(refused["complaints"].get<std::string>().empty());
    }
    CHECK(reply(demo / "nowhere", "check", nullptr)["exit"] == 3);
    std::string first, second;
    std::thread one([&] { first = reply(a, "check", nullptr).dump(); });
    std::thread two([&] { second = reply(a, "check", nullptr).dump(); });
    one.join();
    two.join();
    CHECK(first != "null");
    CHECK(first == second);
}

TEST_CASE("a program outside is built against what is installed, and Python calls it", "[face]") {
    const DemoFolder demo;
    demo.write("outside/main.cpp", program);
    demo.write("outside/CMakeLists.txt", lists);
    demo.write("call.py", script);
    const auto must = [&](const std::string& command) {
        const Run run = run_command(demo, command);
        INFO(command << "\n" << run.out << run.err);
        REQUIRE(run.exit == 0);
        return run.out;
    };
    must("cmake --install '" PANOPLON_BUILD "' --prefix \"$PWD/root\"");
    must("cmake -S outside -B made -DCMAKE_PREFIX_PATH=\"$PWD/root\" && cmake --build made");
    const std::string said = must(PANOPLON_RUNTIME "made/outside a");
    CHECK(has(said, "wins 0."));
    CHECK(has(said, "best "));
    const std::string found =
        "PKG_CONFIG_PATH=$(dirname $(find root -name panoplon.pc)) pkg-config "
        "--cflags --libs panoplon";
    must("g++ -std=c++17 outside/main.cpp -o by_hand $(" + found + ")");
    const std::string library =
        "LD_LIBRARY_PATH=$(dirname $(find root -name libpanoplon_core.so)) ";
    CHECK(must(PANOPLON_RUNTIME + library + "./by_hand a") == said);
    const std::string from_python =
        must(PANOPLON_RUNTIME "python3 call.py $(find root -name libpanoplon_core.so) a");
    CHECK(has(said, from_python));
}
