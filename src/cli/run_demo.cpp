#include "cli/session.h"
#include "show/text_table.h"
#include "show/written_files.h"

#include <algorithm>
#include <chrono>
#include <filesystem>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

/// One step of the example: what it is for, the command, with {A} for the armoury and {R} for the
/// folder of results, and a part of the line that tells what it found.
struct Step {
    const char* shows;
    std::vector<std::string> arguments;
    const char* found;
};

const std::vector<Step>& steps() {
    static const std::vector<Step> list = {
        {"check reads every file and tells mistakes and doubts.",
         {"check", "{A}", "-o", "{R}"},
         "doubts"},
        {"list shows what there is: charms by tier and level, and where there are none.",
         {"list", "{A}", "item", "--slot", "charm", "--sort", "level", "-o", "{R}"},
         "none of"},
        {"card shows two items: one with a percent on top of a budget that is spent already, and "
         "one that spends all of its own on little.",
         {"card", "{A}", "deep_clapper", "felt_gloves", "-o", "{R}"},
         "budget"},
        {"explain says which keys of a thing count, who names it, and what it can and can't do.",
         {"explain", "{A}", "tower_bell"},
         "be worn"},
        {"equip puts the ringer's early loadout on: each stat with its parts, and how far the next "
         "load band is.",
         {"equip", "{A}", "ringer_early", "--level", "6", "-o", "{R}"},
         "carried"},
        {"equip with two loadouts puts them side by side, and tells what each change gives alone.",
         {"equip", "{A}", "ringer_early", "ringer_middle", "--level", "14"},
         "all together"},
        {"fight runs a thousand trials of it against the causeway, and tells one moment by moment.",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "6", "-o", "{R}"},
         "Wins"},
        {"--why tells why something happens as it does, or never; here why the draught is not used "
         "more often.",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "6", "--trials", "200", "--why",
          "wax_draught"},
         "ringer uses wax_draught:"},
        {"A small armoury beside the first has ranges, poisons, stuns, thorns, reloading and "
         "bombs: a "
         "fight of it, moment by moment.",
         {"fight", "{W}", "bow", "mire", "--level", "5", "--log"},
         "By even luck"},
        {"Two loadouts fight under the same luck: can they be told apart?",
         {"fight", "{A}", "ringer_early", "causeway", "--level", "12", "--other", "warden_early",
          "-o", "{R}/two"},
         "stronger than"},
        {"curve draws power and margins over level for every loadout.",
         {"curve", "{A}", "--trials", "60", "-o", "{R}"},
         "wanted corridor of"},
        {"curve --by tier finds the best outfit of each tier and below: do tiers rise together, "
         "and what is a step worth?",
         {"curve", "{A}", "--by", "tier", "--character", "ringer", "--encounter", "proving_post",
          "--even-luck", "-o", "{R}/tiers"},
         " over "},
        {"journey plays a character through stages, with finds and changes of gear.",
         {"journey", "{A}", "marsh_road", "--trials", "100", "-o", "{R}"},
         "reach the end"},
        {"The small armoury's journey has shops, rewards, rests, rolled finds and things that "
         "break.",
         {"journey", "{W}", "scrap_yard", "--trials", "100"},
         "reach the end"},
        {"best finds the best legal loadout of a context, and what takes the place of each thing.",
         {"best", "{A}", "--character", "ringer", "--level", "21", "--encounter", "ford", "-o",
          "{R}"},
         "margin"},
        {"weigh tells what capacity and each more of a consumable are worth.",
         {"weigh", "{A}", "warden_middle", "long_watch", "--level", "18", "-o", "{R}"},
         "In the room that is left"},
        {"audit judges every item: what leaves no choice, and what nobody would wear; here with "
         "what works together, and what whole patterns are worth.",
         {"audit", "{A}", "--pairs", "--by", "pattern", "-o", "{R}"},
         "worn items in"},
        {"tune looks for the fair range of one number: here the percent of the deep clapper.",
         {"tune", "{A}", "deep_clapper", "percent.attack", "--write", "-o", "{R}"},
         "fair from"},
        {"compare tells what that change does to everything else.",
         {"compare", "{A}", "--set", "item.deep_clapper.percent.attack=5", "-o", "{R}"},
         "definition changed"},
        {"watch tells how things stand, and after each save whether they are better; here it looks "
         "once.",
         {"watch", "{A}", "--once"},
         "for a hand"},
        {"A what-if is told like a save: the same change once more.",
         {"watch", "{A}", "--once", "--set", "item.deep_clapper.percent.attack=5"},
         "etter"},
        {"report puts all of it onto one page, and into a workbook.",
         {"report", "{A}", "-o", "{R}"},
         "report.html"},
        {"history lists the runs that are kept in results.sqlite; once the armoury has changed and "
         "is judged again, it tells which verdicts and curves moved.",
         {"history", "{A}"},
         "runs"},
        {"export writes the armoury resolved: JSON with its schema, tables, one TOML.",
         {"export", "{A}", "-o", "{R}/resolved"},
         "resolved"},
    };
    return list;
}

/// Keeps what a step says; progress goes to the terminal.
class StepOutlet : public KeptOutlet {
  public:
    [[nodiscard]] bool watched() const override { return true; }
};

/// The first line that has these words; the first line of all where none has.
std::string line_with(const std::string& text, const std::string& words) {
    const std::vector<std::string> lines = split(text, '\n');
    const auto at = std::find_if(lines.begin(), lines.end(), [&](const std::string& line) {
        return line.find(words) != std::string::npos;
    });
    // The columns of a table stand apart; a line by itself has single blanks.
    std::string line(trim(at == lines.end() ? lines.front() : *at));
    line.erase(
        std::unique(line.begin(), line.end(), [](char a, char b) { return a == ' ' && b == ' '; }),
        line.end());
    return line;
}

/// What the page puts first, from the text of `report`: its lines with a verdict.
std::vector<std::string> what_comes_first(const std::string& text) {
    constexpr std::size_t most = 10;
    std::vector<std::string> list;
    for (const std::string& line : split(text, '\n'))
        if (line.starts_with("  ") && line.find(" — ") != std::string::npos && list.size() < most)
            list.push_back(line);
    return list;
}

void say(const std::string& text) {
    static_cast<void>(outlet().say(text));
}

std::string seconds_since(std::chrono::steady_clock::time_point start) {
    const std::chrono::duration<double> passed = std::chrono::steady_clock::now() - start;
    return fmt::format("{:.1f} s", passed.count());
}

std::string filled(std::string argument, const fs::path& root) {
    if (argument == "{A}") return (root / "armoury").string();
    if (argument == "{W}") return (root / "workshop").string();
    if (argument.starts_with("{R}")) return (root / "results").string() + argument.substr(3);
    return argument;
}

/// Whether a command can be told to search everything anew.
bool searches(const std::string& command) {
    const auto rows = command_rows();
    return std::any_of(rows.begin(), rows.end(), [&](const CommandRow& row) {
        return row.name == command &&
               std::any_of(row.options.begin(), row.options.end(),
                           [](const OptionRow& option) { return option.name == "anew"; });
    });
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
    for (const auto& [files, name] :
         {std::pair(demo_files(), "armoury"), std::pair(workshop_files(), "workshop")}) {
        const auto written = write_embedded(files, (root / name).string());
        if (!written.ok()) return report_failure(written.failure());
    }
    const bool full = invocation.has("full");
    const fs::path texts = root / "results" / "texts";
    fs::create_directories(texts, error);
    if (error)
        return report_failure(
            {Cause::file, fmt::format("can't make the folder '{}'", texts.string()), {}});
    say(fmt::format("The demo armoury is in {}, and a small one of other mechanics in {}.\n\n",
                    (root / "armoury").string(), (root / "workshop").string()));
    std::vector<std::string> first;
    std::size_t number = 0;
    for (const Step& step : steps()) {
        std::vector<std::string> arguments;
        for (const std::string& argument : step.arguments)
            arguments.push_back(filled(argument, root));
        const std::string line = fmt::format("panoplon {}", join(arguments, " "));
        if (full) say(fmt::format("———\n{}\n$ {}\n\n", step.shows, line));
        if (invocation.has("q")) arguments.emplace_back("-q");
        if (invocation.has("threads"))
            arguments.insert(arguments.end(), {"--threads", invocation.value("threads")});
        if (invocation.has("anew") && searches(step.arguments.front()))
            arguments.emplace_back("--anew");
        StepOutlet kept;
        const auto start = std::chrono::steady_clock::now();
        const int exit = [&] {
            const OutletScope scope(kept);
            return run_program(arguments);
        }();
        const std::string name = fmt::format("{:02}-{}.txt", ++number, step.arguments.front());
        const Result<std::string> saved =
            write_whole((texts / name).string(), fmt::format("$ {}\n\n{}", line, kept.text()));
        if (full) say(kept.text() + "\n");
        outlet().complain(kept.complaints());
        if (exit != Exit::done) return exit;
        if (!saved.ok()) return report_failure(saved.failure());
        if (!full)
            say(fmt::format("{}\n  {}\n", folded(step.shows, 100, 0),
                            folded(fmt::format("→ {} ({})", line_with(kept.text(), step.found),
                                               seconds_since(start)),
                                   98, 4)));
        if (step.arguments.front() == "report") first = what_comes_first(kept.text());
    }
    if (!first.empty()) say("\nWhat to look at first:\n" + join(first, "\n") + "\n");
    say(fmt::format("\nThe page: {0}/results/report.html. Pictures and tables: {0}/results. What "
                    "each command says: {0}/results/texts.\nNext: change a number in {0}/armoury "
                    "and run a command again.\n",
                    root.string()));
    return Exit::done;
}

} // namespace panoplon
