// `editor`: what an editor asks over a pipe, and what it is told.
#include "support/editor_client.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>

using namespace panoplon;
using namespace panoplon::test;
using Json = EditorClient::Json;

namespace {

std::string hover_words(const Json& answer) {
    if (!answer.contains("result") || answer.at("result").is_null()) return {};
    return answer.at("result").at("contents").at("value");
}

} // namespace

TEST_CASE("an editor is told of mistakes and doubts while somebody types") {
    const DemoFolder folder;
    EditorClient editor(folder);
    editor.open("a/gear.toml");
    const Json doubts = editor.troubles("a/gear.toml");
    REQUIRE(!doubts.empty());
    CHECK(doubts[0].at("severity") == 2);
    CHECK(doubts[0].contains("code"));
    // What other files of the armoury have is told, too.
    CHECK(!editor.troubles("a/gear.csv").empty());
    const std::string text = editor.text("a/gear.toml");
    editor.change("a/gear.toml", with(text, "slot = \"main_hand\"", "slot = \"main_hnad\""));
    const Json mistakes = editor.troubles("a/gear.toml");
    REQUIRE(mistakes.size() == 1);
    CHECK(mistakes[0].at("severity") == 1);
    CHECK(has(mistakes[0].at("message"), "did you mean 'main_hand'?"));
    CHECK(mistakes[0].at("range").at("start") == Json{{"line", 5}, {"character", 7}});
    CHECK(mistakes[0].at("range").at("end") == Json{{"line", 5}, {"character", 18}});
    // Cards are of the last reading that had no mistake.
    CHECK(has(hover_words(editor.ask_at("hover", "a/gear.toml", "[item.ash_beam]", 8)),
              "+22 attack · +10 keen"));
    // Whoever asks something as soon as it is typed is told no less.
    editor.change("a/gear.toml", with(text, "slot = \"main_hand\"", "slot = \"main_hadn\""));
    editor.ask_at("hover", "a/gear.toml", "slot", 1);
    CHECK(has(editor.troubles("a/gear.toml").at(0).at("message"), "'main_hadn'"));
    // The disk does not have it: closing brings the file back as it is there.
    editor.close("a/gear.toml");
    CHECK(editor.troubles("a/gear.toml") == doubts);
}

TEST_CASE("an editor is told of what another program saves") {
    const DemoFolder folder;
    EditorClient editor(folder);
    editor.open("a/gear.toml");
    CHECK(editor.troubles("a/gear.csv").size() > 1);
    folder.write("a/gear.csv",
                 with(folder.read("a/gear.csv"), "main_hand,plain,1,4.0", "main_hand,plane,1,4.0"));
    const Json mistakes = editor.troubles("a/gear.csv");
    REQUIRE(mistakes.size() == 1);
    CHECK(has(mistakes[0].at("message"), "'plane'"));
}

TEST_CASE("an editor finds, shows and renames things across the files of an armoury") {
    const DemoFolder folder;
    EditorClient editor(folder);
    for (const char* file : {"a/gear.csv", "a/loadouts.toml"}) editor.open(file);
    const std::string worn = "oak_clapper";
    REQUIRE(has(editor.text("a/loadouts.toml"), worn));
    const Json found = editor.ask_at("definition", "a/loadouts.toml", worn, 3).at("result");
    CHECK(found.at("uri") == editor.uri("a/gear.csv"));
    CHECK(found.at("range").at("start") == Json{{"line", 1}, {"character", 0}});
    const Json all = editor
                         .ask_at("references", "a/loadouts.toml", worn, 3,
                                 {{"context", {{"includeDeclaration", true}}}})
                         .at("result");
    const Json others = editor
                            .ask_at("references", "a/loadouts.toml", worn, 3,
                                    {{"context", {{"includeDeclaration", false}}}})
                            .at("result");
    CHECK(all.size() == others.size() + 1);
    const Json edits =
        editor.ask_at("rename", "a/loadouts.toml", worn, 3, {{"newName", "elm_clapper"}})
            .at("result")
            .at("changes");
    CHECK(edits.contains(editor.uri("a/gear.csv")));
    CHECK(edits.contains(editor.uri("a/loadouts.toml")));
    const Json refused =
        editor.ask_at("rename", "a/loadouts.toml", worn, 3, {{"newName", "ash_striker"}});
    CHECK(has(refused.at("error").at("message"), "another item has the id 'ash_striker'"));
    CHECK(
        editor.ask_at("prepareRename", "a/loadouts.toml", worn, 3).at("result").at("placeholder") ==
        worn);
    CHECK(editor.ask_at("documentSymbol", "a/gear.csv", worn).at("result").size() > 80);
}

TEST_CASE("a card in an editor has the verdict of the last whole audit or watch") {
    const TempFolder folder;
    const auto save = [&](const std::string& attack) {
        folder.write("a/armoury.toml",
                     arena(piece("plain", "hand", "add = { attack = 8 }") +
                           piece("keen", "hand", "add = { attack = " + attack + " }")));
    };
    save("20");
    EditorClient editor(folder);
    const auto card = [&] {
        editor.open("a/armoury.toml");
        return hover_words(editor.ask_at("hover", "a/armoury.toml", "[item.keen]", 7));
    };
    CHECK(has(card(), "*no verdict yet: `audit` or `watch` finds one*"));
    REQUIRE(run_program(folder, "audit a --level 1").exit == 0);
    CHECK(has(card(), "*no verdict yet")); // that was an audit of a part
    REQUIRE(run_program(folder, "audit a --set item.keen.add.attack=9").exit == 0);
    CHECK(has(card(), "*no verdict yet")); // and that of another armoury
    REQUIRE(run_program(folder, "audit a").exit == 0);
    CHECK(has(card(), "(audit of 20"));
    CHECK_FALSE(has(card(), "has changed since"));
    save("9");
    CHECK(has(card(), "; the item has changed since)"));
    REQUIRE(run_program(folder, "watch a --once").exit == 0);
    CHECK_FALSE(has(card(), "has changed since"));
}

TEST_CASE("an editor is offered what may stand where somebody types") {
    const DemoFolder folder;
    EditorClient editor(folder);
    editor.open("a/gear.toml");
    editor.change("a/gear.toml", editor.text("a/gear.toml") + "\n[item.new]\nslot = \"he");
    const Json list =
        editor.ask_at("completion", "a/gear.toml", "[item.new]\nslot = \"he", 21).at("result");
    const auto head = std::find_if(list.begin(), list.end(),
                                   [](const Json& one) { return one.at("label") == "head"; });
    REQUIRE(head != list.end());
    const Json range = head->at("textEdit").at("range");
    CHECK(range.at("start").at("character") == 8);
    CHECK(range.at("end").at("character") == 10);
}

TEST_CASE("an editor says hello and goodbye") {
    const DemoFolder folder;
    {
        EditorClient editor(folder, false);
        CHECK(editor.ask("textDocument/hover").at("error").at("code") == -32002);
        CHECK(editor.ask("initialize").at("result").at("serverInfo").at("name") == "panoplon");
        CHECK(editor.ask("shutdown").at("result").is_null());
        editor.tell("exit");
        CHECK(editor.end() == 0);
    }
    EditorClient editor(folder);
    CHECK(editor.end() == 1); // without a goodbye
}

TEST_CASE("an editor that says what nobody understands is answered, and served on") {
    const DemoFolder folder;
    EditorClient editor(folder);
    CHECK(editor.ask("textDocument/dance").at("error").at("code") == -32601);
    CHECK(editor.ask("textDocument/hover", {{"position", 3}}).at("error").at("code") == -32602);
    CHECK(editor.ask("textDocument/hover", Json::array({1})).at("error").at("code") == -32602);
    editor.tell("$/setTrace");
    editor.send_bytes("Content-Length: 3\r\n\r\n{]}");
    CHECK(editor.next().at("error").at("code") == -32700);
    editor.send_bytes("Content-Length: 2\r\nContent-Type: x\r\n\r\n[]");
    CHECK(editor.next().at("error").at("code") == -32600);
    folder.write("alone.toml", "[item.x]\n");
    editor.open("alone.toml"); // in no armoury
    CHECK(editor.ask_at("hover", "alone.toml", "item", 1).at("result").is_null());
    CHECK(editor.ask_at("completion", "alone.toml", "item", 1).at("result").empty());
    editor.tell("textDocument/didOpen", {{"textDocument", {{"uri", "untitled:1"}, {"text", ""}}}});
    editor.open("a/armoury.toml");
    CHECK(!hover_words(editor.ask_at("hover", "a/armoury.toml", "name", 1)).empty());
}

TEST_CASE("an editor that sends no messages is told so") {
    const DemoFolder folder;
    for (const std::string bytes : {"Content-Length: 9999999999999\r\n\r\n", "Length: 3\r\n\r\n{}",
                                    "Content-Length: 40\r\n\r\n{}"}) {
        INFO(bytes);
        EditorClient editor(folder);
        editor.send_bytes(bytes);
        CHECK(editor.end() == 1);
    }
    const Run run =
        run_command(folder, "sh -c 'head -c 9000 /dev/zero | \"" PANOPLON_BINARY "\" editor'");
    CHECK(run.exit == 1);
    CHECK(has(run.err, "what came is no message of an editor"));
}

TEST_CASE("an armoury whose folder goes away leaves the editor served") {
    const DemoFolder folder;
    EditorClient editor(folder);
    editor.open("a/gear.toml");
    CHECK(!editor.troubles("a/gear.toml").empty());
    std::filesystem::remove_all(folder / "a");
    editor.change("a/gear.toml", editor.text("a/gear.toml") + "\n");
    CHECK(editor.ask_at("hover", "a/gear.toml", "item", 1).contains("result"));
    CHECK(editor.ask("shutdown").at("result").is_null());
}
