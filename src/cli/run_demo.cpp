#include "cli/session.h"

#include <filesystem>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

/// One step of the example: what it shows, and the command, with {A} for the armoury and {R} for
/// the folder of results.
struct Step {
    const char* shows;
    std::vector<std::string> arguments;
};

const std::vector<Step>& steps() {
    static const std::vector<Step> list = {
        {"check reads every file and tells mistakes and doubts.", {"check", "{A}", "-o", "{R}"}},
        {"list shows what there is: charms by tier and level, and where there are none.",
         {"list", "{A}", "item", "--slot", "charm", "--sort", "level", "-o", "{R}"}},
        {"card shows two items: one with a percent on top of a budget that is spent already, and "
         "one that spends all of its own on little.",
         {"card", "{A}", "deep_clapper", "felt_gloves", "-o", "{R}"}},
        {"explain says which keys of a thing count, who names it, and what it can and can't do.",
         {"explain", "{A}", "tower_bell"}},
        {"equip puts the ringer's early loadout on: each stat with its parts, and how far the next "
         "load band is.",
         {"equip", "{A}", "ringer_early", "--level", "6", "-o", "{R}"}},
        {"equip with two loadouts puts them side by side, and tells what each change gives alone.",
         {"equip", "{A}", "ringer_early", "ringer_middle", "--level", "14"}},
        {"fight runs a thousand trials of it against the causeway, and tells one moment by moment.",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "6", "-o", "{R}"}},
        {"--why tells why something happens as it does, or never; here why the draught is not used "
         "more often.",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "6", "--trials", "200", "--why",
          "wax_draught"}},
        {"Two loadouts fight under the same luck: can they be told apart?",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "12", "--other", "warden_early",
          "-o", "{R}/two"}},
        {"curve draws power and margins over level for every loadout.",
         {"curve", "{A}", "--trials", "60", "-o", "{R}"}},
        {"curve --by tier finds the best outfit of each tier and below: do tiers rise together, "
         "and "
         "what is a step worth?",
         {"curve", "{A}", "--by", "tier", "--character", "ringer", "--encounter", "proving_post",
          "--even-luck", "-o", "{R}/tiers"}},
        {"journey plays a character through stages, with finds and changes of gear.",
         {"journey", "{A}", "marsh_road", "--trials", "100", "-o", "{R}"}},
        {"best finds the best legal loadout of a context, and what takes the place of each thing.",
         {"best", "{A}", "--character", "ringer", "--level", "21", "--encounter", "ford", "-o",
          "{R}"}},
        {"weigh tells what capacity and each more of a consumable are worth.",
         {"weigh", "{A}", "warden_middle", "long_watch", "--level", "18", "-o", "{R}"}},
        {"audit judges every item: what leaves no choice, and what nobody would wear; here with "
         "what works together, and what whole patterns are worth.",
         {"audit", "{A}", "--pairs", "--by", "pattern", "-o", "{R}"}},
        {"tune looks for the fair range of one number: here the percent of the deep clapper.",
         {"tune", "{A}", "deep_clapper", "percent.attack", "--write", "-o", "{R}"}},
        {"compare tells what that change does to everything else.",
         {"compare", "{A}", "--set", "item.deep_clapper.percent.attack=5", "-o", "{R}"}},
        {"report puts all of it onto one page, and into a workbook.",
         {"report", "{A}", "-o", "{R}"}},
        {"history lists the runs that are kept in results.sqlite; once the armoury has changed and "
         "is "
         "judged again, it tells which verdicts and curves moved.",
         {"history", "{A}"}},
        {"export writes the armoury resolved: JSON with its schema, tables, one TOML.",
         {"export", "{A}", "-o", "{R}/resolved"}},
    };
    return list;
}

std::string filled(std::string argument, const fs::path& root) {
    if (argument == "{A}") return (root / "armoury").string();
    if (argument.starts_with("{R}")) return (root / "results").string() + argument.substr(3);
    return argument;
}

} // namespace

int run_demo(const Invocation& invocation) {
    const fs::path root(invocation.operands().empty() ? "panoplon-demo"
                                                      : invocation.operands().front());
    std::error_code error;
    if (fs::exists(root, error) && (!fs::is_directory(root, error) || !fs::is_empty(root, error)))
        return report_failure(
            {Cause::refused,
             fmt::format("'{}' is there already and is not an empty folder", root.string()),
             "name one that is absent or empty"});
    const auto written = write_embedded(demo_files(), (root / "armoury").string());
    if (!written.ok()) return report_failure(written.failure());
    fmt::print("Wrote the demo armoury into {}\n", (root / "armoury").string());
    for (const Step& step : steps()) {
        std::vector<std::string> arguments;
        for (const std::string& argument : step.arguments)
            arguments.push_back(filled(argument, root));
        fmt::print("\n———\n{}\n$ panoplon {}\n\n", step.shows, join(arguments, " "));
        if (invocation.has("q")) arguments.emplace_back("-q");
        if (invocation.has("threads"))
            arguments.insert(arguments.end(), {"--threads", invocation.value("threads")});
        if (const int exit = run_program(arguments); exit != Exit::done) return exit;
    }
    fmt::print("\n———\nNext: open {0}/results/report.html in a browser, change a number in "
               "{0}/armoury, and run a command again.\n",
               root.string());
    return Exit::done;
}

} // namespace panoplon
