// Every example of the cookbook is read, and fought with.
#include "show/armoury/cookbook.h"

#include "demo/files.h"
#include "show/armoury/handbook.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::string_view page() {
    for (const EmbeddedFile& file : page_files())
        if (file.path == "cookbook.md") return file.text;
    return {};
}

/// The armoury that `new` writes, with an example: what stands under `# in [combat]`, up to an
/// empty line, in that table, the rest in a file of its own.
ReadArmoury with_example(const std::string& example) {
    const std::string mark = "# in [combat]\n";
    std::string combat, rest = example;
    if (example.starts_with(mark)) {
        const std::size_t end = example.find("\n\n");
        combat = example.substr(mark.size(), end - mark.size()) + "\n";
        rest = example.substr(end);
    }
    Sources sources;
    for (const EmbeddedFile& file : starter_files()) {
        std::string text(file.text);
        if (file.path == "armoury.toml") text.insert(text.find("health = \"health\""), combat);
        sources.add(std::string(file.path), text);
    }
    sources.add("more.toml", rest);
    return read_sources(std::move(sources), {});
}

} // namespace

TEST_CASE("cookbook: every example is read beside the starter, and fought with") {
    const std::vector<Recipe> recipes = recipes_of(page());
    CHECK(recipes.size() >= 40);
    for (const Recipe& recipe : recipes) {
        INFO(recipe.title << "\n" << recipe.example);
        CHECK_FALSE(recipe.text.empty());
        CHECK_FALSE(recipe.synonyms.empty());
        const bool said = !recipe.example.empty();
        CHECK((said || recipe.text.starts_with("Not to be said")));
        if (!said) continue;
        const ReadArmoury read = with_example(recipe.example);
        INFO(mistakes(read));
        REQUIRE(read.usable());
        const Armoury& armoury = read.armoury;
        // Who wears and packs what the example has, or fights whom it has.
        Loadout loadout = armoury.loadouts[find_id<LoadoutKind>(armoury.loadouts, "first").index()];
        for (std::size_t i = 0; i < armoury.items.size(); ++i) {
            const Item& item = armoury.items[i];
            if (read.sources.file(item.span.file).path != "more.toml") continue;
            if (item.use) loadout.pack.push_back({ItemId(i), 1, {}});
            if (item.worn() && !armoury.at(item.slot).socket)
                std::erase_if(loadout.worn,
                              [&](const WornItem& worn) { return worn.slot == item.slot; });
            if (item.worn() && !armoury.at(item.slot).socket)
                loadout.worn.push_back({item.slot, ItemId(i), {}, {}});
        }
        for (std::size_t e = 0; e < armoury.encounters.size(); ++e) {
            const FightSetup setup =
                set_up_fight(armoury, outfit_of(armoury, loadout, 6), EncounterId(e));
            Engine engine(armoury);
            engine.prepare(setup);
            CHECK_FALSE(engine.run(1, Luck{1, 0}).error.has_value());
            CHECK_FALSE(engine.run(1, std::nullopt).error.has_value());
        }
    }
}

TEST_CASE("cookbook: nothing is called by two names that mean two things, and explain knows each") {
    const std::vector<Recipe> recipes = recipes_of(page());
    std::set<std::string> names;
    const TempFolder folder;
    const ReadArmoury starter = with_example("");
    const Handbook handbook{"", "", page(), {&starter}, {}};
    for (const Recipe& recipe : recipes) {
        std::vector<std::string> all = recipe.synonyms;
        all.push_back(recipe.title);
        for (const std::string& name : all) {
            INFO(name);
            CHECK(names.insert(name).second);
            const std::vector<Explanation> found = explain(handbook, name);
            REQUIRE_FALSE(found.empty());
            CHECK(found.front().what == "cookbook");
        }
    }
}

TEST_CASE("cookbook: a page is taken apart into headings, synonyms, words and examples") {
    const std::vector<Recipe> recipes =
        recipes_of("# Title\n\n## First Thing\nAlso: one, Other Word\n\nDone so.\n```toml\n## no "
                   "heading\na = 1\n```\n\n## Second\nNot to be said.\n");
    REQUIRE(recipes.size() == 2);
    CHECK(recipes[0].title == "first thing");
    CHECK(recipes[0].synonyms == std::vector<std::string>{"one", "other word"});
    CHECK(recipes[0].text == "Done so.");
    CHECK(recipes[0].example == "## no heading\na = 1\n");
    CHECK(recipes[0].is_called("First thing"));
    CHECK(recipes[0].is_called("Other word"));
    CHECK_FALSE(recipes[1].is_called("first"));
}
