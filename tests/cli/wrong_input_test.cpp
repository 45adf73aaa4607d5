#include "support/armouries.h"
#include "support/program.h"

#include <catch2/catch.hpp>
#include <functional>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// What is done to a sound armoury, and what has to come of it.
struct Wrong {
    const char* what;
    std::function<void(const TempFolder&)> spoil;
    int exit;
    const char* message; ///< part of what is said to standard error
};

void replace(const TempFolder& folder, const std::string& file, const std::string& from,
             const std::string& to) {
    folder.write(file, with(folder.read(file), from, to));
}

std::string noise(std::size_t size) {
    std::string text;
    std::uint64_t state = 1;
    while (text.size() < size) {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        text += static_cast<char>(' ' + (state >> 33) % 95);
    }
    return text;
}

// clang-format off
const Wrong wrongs[] = {
    {"a missing root file", [](const TempFolder& f) { std::filesystem::remove(f / "a/armoury.toml"); }, 1, "has no armoury.toml; it has 7 other files"},
    {"an empty root file", [](const TempFolder& f) { f.write("a/armoury.toml", ""); }, 1, "the armoury has no [armoury]"},
    {"a folder named like a file", [](const TempFolder& f) { f.write("a/x.toml/readme", ""); }, 1, "x.toml: error: a folder with the name of a file"},
    {"bytes that are no UTF-8", [](const TempFolder& f) { f.write("a/x.toml", "[item.x]\nname = \"\xff\"\n"); }, 1, "x.toml:2:1: error: byte 0xff is not UTF-8 text"},
    {"eight megabytes of noise", [](const TempFolder& f) { f.write("a/x.toml", noise(8'000'000)); }, 1, "x.toml:1:"},
    {"a file that is too long", [](const TempFolder& f) { f.write("a/x.toml", std::string(9'000'000, '\n')); }, 1, "x.toml: error: 9000000 bytes; at most 8388608 are read"},
    {"a text in UTF-16", [](const TempFolder& f) { f.write("a/x.toml", std::string("\xff\xfe[\0", 4)); }, 1, "x.toml: error: it is UTF-16"},
    {"ten megabytes of noise in a table", [](const TempFolder& f) { f.write("a/x.csv", noise(10'000'000)); }, 1, "x.csv:1:121: error: a quote stands where none may"},
    {"ten megabytes in one row", [](const TempFolder& f) { std::string t = "item"; while (t.size() < 10'000'000) t += ",a"; f.write("a/x.csv", t + "\n"); }, 1, "more than 2000000 cells"},
    {"a capacity that is no number", [](const TempFolder& f) { replace(f, "a/armoury.toml", "22 + 2 * self.might", "22 / (self.might - self.might)"); }, 1, "the capacity '22 / (self.might - self.might)' gives no number"},
    {"a stat that is no number", [](const TempFolder& f) { replace(f, "a/vocabulary.toml", "self.attack * (1 + self.keen / 200)", "ln(0 - self.attack)"); }, 1, "gives no number"},
    {"two thousand columns", [](const TempFolder& f) { std::string t = "item"; while (t.size() < 4004) t += ",a"; f.write("a/x.csv", t + "\n"); }, 1, "x.csv:1:2006: error: a table of 2001 columns; at most 1000 are read"},
    {"a table of many wrong cells", [](const TempFolder& f) { std::string t = "item,slot,level\n"; for (int i = 0; i < 90000; ++i) t += "i" + std::to_string(i) + ",nowhere,0\n"; f.write("a/x.csv", t); }, 1, "180000 mistakes"},
    {"an id in two files", [](const TempFolder& f) { f.write("a/x.toml", "[item.lamp]\n"); }, 1, "[item.lamp] is defined a second time"},
    {"a cycle of stats", [](const TempFolder& f) { f.write("a/x.toml", "[stat.a]\nvalue = \"self.b\"\n[stat.b]\nvalue = \"self.a\"\n"); }, 1, "a cycle of stats: a needs b needs a"},
    {"a division by zero", [](const TempFolder& f) { replace(f, "a/vocabulary.toml", "100 + other.guard", "other.guard * 0"); }, 1, "the formula 'amount * 100 / (other.guard * 0)' gives inf with amount = "},
    {"an action that takes no time", [](const TempFolder& f) { replace(f, "a/fighters.toml", "every = \"2.6\"", "every = \"0\""); }, 1, "'every' of 'bash' is 0: time would stand still"},
    {"a health of 0", [](const TempFolder& f) { replace(f, "a/fighters.toml", "max_health = 250", "max_health = 0"); }, 1, "the foe 'mire_ox' has 0 max_health at level 1: it could not stand"},
    {"a number that is none", [](const TempFolder& f) { replace(f, "a/fighters.toml", "attack = 75", "attack = nan"); }, 1, "'base' is nan, which is no amount"},
    {"an infinite number", [](const TempFolder& f) { replace(f, "a/fighters.toml", "attack = 75", "attack = inf"); }, 1, "'base' is inf, which is no amount"},
    {"a negative weight", [](const TempFolder& f) { replace(f, "a/consumables.toml", "weight = 0.6", "weight = -0.6"); }, 1, "'weight' is -0.6; allowed: 0 to 1000000"},
    {"levels upside down", [](const TempFolder& f) { replace(f, "a/armoury.toml", "[1, 30]", "[30, 1]"); }, 1, "'levels' runs from 30 down to 1"},
    {"a huge number", [](const TempFolder& f) { replace(f, "a/consumables.toml", "weight = 0.6", "weight = 1e300"); }, 1, "'weight' is 1e+300; allowed"},
    {"a deep nest", [](const TempFolder& f) { f.write("a/x.toml", "[item.x]\ntags = " + std::string(5000, '[') + "\n"); }, 1, "x.toml:2:"},
    {"a formula of a thousand brackets", [](const TempFolder& f) { replace(f, "a/fighters.toml", "every = \"2.6\"", "every = \"" + std::string(900, '(') + "2.6" + std::string(900, ')') + "\""); }, 0, ""},
    {"a mark for byte order", [](const TempFolder& f) { f.write("a/gear.csv", "\xef\xbb\xbf" + f.read("a/gear.csv")); }, 0, ""},
};
// clang-format on

} // namespace

TEST_CASE("program: each kind of wrong input gets its message, its exit code, and no files") {
    for (const Wrong& wrong : wrongs) {
        const DemoFolder demo;
        wrong.spoil(demo);
        const Run run = run_program(demo, "fight a ringer_early ford --level 8 --trials 5 -o out");
        INFO(wrong.what);
        INFO(run.err.substr(0, 500));
        CHECK(run.exit == wrong.exit);
        CHECK(run.err.find(wrong.message) != std::string::npos);
        CHECK(run.err.size() < 100'000);
        CHECK(demo.has("out") == (wrong.exit == 0));
        const bool seen_when_fought = run.err.find("gives inf") != std::string::npos ||
                                      run.err.find("gives no number") != std::string::npos;
        CHECK(run_program(demo, "check a").exit == (seen_when_fought ? 0 : wrong.exit));
    }
}

TEST_CASE("program: line ends of any system are read") {
    const DemoFolder demo;
    const std::string before =
        run_program(demo, "fight a ringer_early ford --level 8 --trials 5").out;
    for (const char* file :
         {"a/armoury.toml", "a/gear.csv", "a/fighters.toml", "a/loadouts.toml"}) {
        std::string crlf;
        for (const char c : demo.read(file))
            crlf += c == '\n' ? std::string("\r\n") : std::string(1, c);
        demo.write(file, crlf);
    }
    CHECK(run_program(demo, "fight a ringer_early ford --level 8 --trials 5").out == before);
}

TEST_CASE("program: names from files can't steer the terminal or the shell") {
    const DemoFolder demo;
    demo.write("a/x.toml", "[item.trap]\nname = \"\\u001b[31m`touch trap` $(touch trap) \\\"x\\\" "
                           "<script>\"\nslot = \"head\"\nadd = { guard = 500 }\n");
    const Run card = run_program(demo, "card a trap");
    CHECK(card.exit == 0);
    CHECK(card.out.find('\x1b') == std::string::npos);
    CHECK(run_program(demo, "audit a --level 1 --encounter ford -o out").exit == 0);
    CHECK_FALSE(demo.has("trap"));
    CHECK_FALSE(demo.has("out/trap"));
}
