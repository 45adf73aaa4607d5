// The program on a terminal and in a shell: widths, colours, completion, the man page, the package.
#include "support/program.h"

#include "base/text.h"

#include <catch2/catch.hpp>
#include <filesystem>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::size_t longest_line(const std::string& text) {
    std::size_t longest = 0;
    for (const std::string& line : split(text, '\n')) longest = std::max(longest, characters(line));
    return longest;
}

/// What bash offers after these words, one a line.
std::string offered(const TempFolder& folder, const std::string& words) {
    folder.write("offer.sh", "source '" PANOPLON_SHELL_FILES "/panoplon.bash'\n"
                             "COMP_WORDS=('" PANOPLON_BINARY "' " +
                                 words +
                                 ")\nCOMP_CWORD=$((${#COMP_WORDS[@]} - 1))\n_panoplon\n"
                                 "printf '%s\\n' \"${COMPREPLY[@]}\"\n");
    const Run run = run_command(folder, "bash offer.sh");
    CHECK(run.err.empty());
    return run.out;
}

} // namespace

TEST_CASE("program: text keeps to the width of the terminal, and to none in a file") {
    const DemoFolder demo;
    for (const char* command :
         {"equip a ringer_early --level 6", "list a character", "explain item.needs.stats",
          "fight a ringer_early causeway --trials 20 --level 6", "journey a marsh_road --trials 5",
          "best a --character ringer --level 12 --encounter ford"}) {
        INFO(command);
        CHECK(longest_line(run_program(demo, command, "COLUMNS=100").out) <= 100);
    }
    const std::string equip = "equip a ringer_early --level 6";
    CHECK(longest_line(run_program(demo, equip).out) > 100);
    const std::string narrow = run_program(demo, equip, "COLUMNS=60").out;
    std::size_t over = 0;
    for (const std::string& line : split(narrow, '\n'))
        over += line.starts_with("  ") && characters(line) > 60;
    CHECK(over == 0);
}

TEST_CASE("program: colours only where they are asked for, and the same words") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const std::string audit = "audit a --trials 0 -q";
    const std::string plain = run_program(folder, audit).out;
    CHECK_FALSE(has(plain, "\x1b"));
    const std::string coloured = run_program(folder, audit + " --colour always").out;
    CHECK(has(coloured, "\x1b[1;31mdominant\x1b[0m"));
    std::string stripped;
    for (std::size_t at = 0; at < coloured.size(); ++at) {
        if (coloured[at] == '\x1b')
            at = coloured.find('m', at);
        else
            stripped += coloured[at];
    }
    CHECK(stripped == plain);
    CHECK(run_program(folder, audit + " --colour purple").exit == 2);
    // `script` gives the program a terminal.
    const auto on_terminal = [&](const std::string& before) {
        return run_command(folder, before + " script -qec \"'" PANOPLON_BINARY "' " + audit +
                                       "\" /dev/null")
            .out;
    };
    CHECK(has(on_terminal("TERM=xterm"), "\x1b[1;31m"));
    CHECK_FALSE(has(on_terminal("TERM=xterm NO_COLOR=1"), "\x1b[1;31m"));
    CHECK_FALSE(has(on_terminal("TERM=dumb"), "\x1b[1;31m"));
}

TEST_CASE("program: what nothing outclasses is not marked as outclassed") {
    const DemoFolder demo;
    const std::string card = run_program(demo, "card a wax_hood --colour always").out;
    REQUIRE(has(card, "nothing on paper"));
    CHECK_FALSE(has(card, "\x1b[1;31moutclassed"));
    CHECK(has(run_program(demo, "card a grease_hood --colour always").out, "\x1b[1;31moutclassed"));
}

TEST_CASE("program: list gives ids alone") {
    const DemoFolder demo;
    CHECK(has(run_program(demo, "list a loadout --ids").out, "ringer_early\nringer_late\n"));
    CHECK(run_program(demo, "list a --ids").exit == 2);
}

TEST_CASE("bash completes commands, options, files, and ids of the armoury on the line") {
    const DemoFolder demo;
    CHECK(offered(demo, "au") == "audit\n");
    CHECK(offered(demo, "fight ''") == "a\n");
    CHECK(offered(demo, "fight a runner_e") == "runner_early\n");
    CHECK(offered(demo, "fight a runner_early cause") == "causeway\n");
    CHECK(offered(demo, "fight a --level 3 runner_early --tr") == "--trials\n--trial\n");
    CHECK(offered(demo, "card a deep_clapper storm_b") == "storm_brew\n");
    CHECK(offered(demo, "audit a --character ''") == "ringer\nrunner\nwarden\n");
    CHECK(offered(demo, "report a --only ver") == "verdicts\n");
    CHECK(offered(demo, "audit a --level ''") == "\n");
    CHECK(offered(demo, "nonsense ''") == "\n");
}

TEST_CASE("zsh's completion and the man page are well formed and know every command") {
    const TempFolder folder;
    CHECK(run_command(folder, "zsh -n '" PANOPLON_SHELL_FILES "/_panoplon'").exit == 0);
    const Run page =
        run_command(folder, "groff -man -ww -Tutf8 -P-cbou '" PANOPLON_SHELL_FILES "/panoplon.1'");
    CHECK(page.exit == 0);
    CHECK(page.err.empty());
    const std::string zsh = run_command(folder, "cat '" PANOPLON_SHELL_FILES "/_panoplon'").out;
    const std::string help = run_program(folder, "--help").out;
    const std::string commands = help.substr(help.find("commands:\n") + 10);
    std::size_t seen = 0;
    for (const std::string& line : split(commands.substr(0, commands.find("\n\n")), '\n')) {
        const std::string name = line.substr(2, line.find(' ', 2) - 2);
        INFO(name);
        CHECK(has(zsh, "    (" + name + ")\n"));
        CHECK(has(page.out, name));
        ++seen;
    }
    CHECK(seen >= 18);
}

TEST_CASE("what is installed runs, and the package has what it needs") {
    const TempFolder folder;
    const Run made =
        run_command(folder, "cpack -G DEB --config '" PANOPLON_BUILD "/CPackConfig.cmake' -B .");
    INFO(made.out << made.err);
    REQUIRE(made.exit == 0);
    REQUIRE(run_command(folder,
                        "sh -c 'mv panoplon_*.deb panoplon.deb && dpkg-deb -x panoplon.deb root'")
                .exit == 0);
    for (const char* file :
         {"bin/panoplon", "share/man/man1/panoplon.1", "share/bash-completion/completions/panoplon",
          "share/zsh/vendor-completions/_panoplon", "share/doc/panoplon/copyright",
          "share/doc/panoplon/README.md"}) {
        INFO(file);
        CHECK(folder.has(std::string("root/usr/") + file));
    }
    CHECK(run_command(folder, "root/usr/bin/panoplon --version").out.starts_with("panoplon "));
    CHECK(run_command(folder, "root/usr/bin/panoplon new a").exit == 0);
    const std::string depends = run_command(folder, "dpkg-deb -f panoplon.deb Depends").out;
    for (const char* package : {"gnuplot-nox", "fonts-inter", "libxlsxwriter", "libsqlite3"})
        CHECK(has(depends, package));
}
