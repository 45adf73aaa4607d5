#include "cli/earlier_runs.h"
#include "cli/editor_json.h"
#include "cli/editor_wire.h"
#include "cli/open_armouries.h"
#include "cli/program_handbook.h"
#include "cli/told_verdicts.h"
#include "editor/positions.h"
#include "editor/rename.h"
#include "editor/suggest.h"

#include <filesystem>
#include <fmt/format.h>
#include <unistd.h>
#include <utility>

namespace panoplon {

namespace {

namespace fs = std::filesystem;
using namespace std::chrono_literals;

/// Codes of JSON-RPC and of the protocol.
enum Code : int {
    parse_error = -32700,
    invalid_request = -32600,
    method_not_found = -32601,
    invalid_params = -32602,
    not_initialized = -32002,
    request_failed = -32803
};

class EditorSession {
  public:
    explicit EditorSession(const Invocation& invocation) : earlier_(invocation) {}

    int run() {
        while (true) {
            const EditorWire::Received received = wire_.next(changed_ ? 150ms : 500ms);
            switch (received.what) {
            case EditorWire::Received::What::ended:
                if (!received.trouble.empty())
                    return report_failure({Cause::refused, received.trouble,
                                           "'editor' speaks the Language Server Protocol"});
                return Exit::refused; // without a word of goodbye
            case EditorWire::Received::What::not_json:
                refuse(Json(), Code::parse_error, "the message is not JSON");
                break;
            case EditorWire::Received::What::message: take(received.message); break;
            case EditorWire::Received::What::nothing: tell_troubles(); break;
            }
            if (exit_) return *exit_;
        }
    }

  private:
    /// A place in a file of an armoury.
    struct At {
        OpenArmoury& armoury;
        const Edited& edited;
        std::int32_t file;
        std::size_t place;
    };

    using Answer = Json (EditorSession::*)(const Json& params);
    struct Method {
        std::string_view name;
        Answer answer;
    };

    static std::span<const Method> methods() {
        static constexpr Method list[] = {
            {"initialize", &EditorSession::initialize},
            {"shutdown", &EditorSession::shutdown},
            {"exit", &EditorSession::exit},
            {"textDocument/didOpen", &EditorSession::did_open},
            {"textDocument/didChange", &EditorSession::did_change},
            {"textDocument/didSave", &EditorSession::did_save},
            {"textDocument/didClose", &EditorSession::did_close},
            {"textDocument/completion", &EditorSession::completion},
            {"textDocument/hover", &EditorSession::hover},
            {"textDocument/definition", &EditorSession::definition},
            {"textDocument/references", &EditorSession::references},
            {"textDocument/prepareRename", &EditorSession::prepare_rename},
            {"textDocument/rename", &EditorSession::rename_thing},
            {"textDocument/documentSymbol", &EditorSession::symbols},
        };
        return list;
    }

    /// A request is answered; a notification, which has no id, is heeded.
    void take(const Json& message) {
        if (!message.is_object()) return refuse(Json(), Code::invalid_request, "no object");
        if (!message.contains("method")) return; // an answer to what was never asked
        const Json id = message.value("id", Json());
        const bool asks = message.contains("id");
        try {
            const std::string name = message.at("method");
            const auto method = std::find_if(methods().begin(), methods().end(),
                                             [&](const Method& one) { return one.name == name; });
            if (method == methods().end()) {
                if (asks) refuse(id, Code::method_not_found, fmt::format("no method '{}'", name));
                return;
            }
            if (!initialized_ && name != "initialize" && name != "exit") {
                if (asks) refuse(id, Code::not_initialized, "'initialize' comes first");
                return;
            }
            refused_.reset();
            const Json result = (this->*method->answer)(message.value("params", Json::object()));
            if (asks && refused_)
                refuse(id, Code::request_failed,
                       refused_->message + (refused_->hint.empty() ? "" : "; " + refused_->hint));
            else if (asks)
                send({{"id", id}, {"result", result}});
        } catch (const Json::exception& error) {
            if (asks) refuse(id, Code::invalid_params, error.what());
        }
    }

    void send(Json message) {
        message["jsonrpc"] = "2.0";
        if (!wire_.send(message)) exit_ = static_cast<int>(Exit::file_trouble);
    }
    void notify(const char* method, Json params) {
        send({{"method", method}, {"params", std::move(params)}});
    }
    void refuse(const Json& id, int code, const std::string& why) {
        send({{"id", id}, {"error", {{"code", code}, {"message", why}}}});
    }

    Json initialize(const Json&) {
        initialized_ = true;
        constexpr int whole_text = 1;
        return {
            {"capabilities",
             {{"textDocumentSync", {{"openClose", true}, {"change", whole_text}, {"save", true}}},
              {"completionProvider", {{"triggerCharacters", {"[", ".", "\"", ",", ";"}}}},
              {"hoverProvider", true},
              {"definitionProvider", true},
              {"referencesProvider", true},
              {"documentSymbolProvider", true},
              {"renameProvider", {{"prepareProvider", true}}}}},
            {"serverInfo", {{"name", "panoplon"}, {"version", PANOPLON_VERSION}}}};
    }
    Json shutdown(const Json&) {
        shut_down_ = true;
        return nullptr;
    }
    Json exit(const Json&) {
        exit_ = static_cast<int>(shut_down_ ? Exit::done : Exit::refused);
        return nullptr;
    }

    /// The armoury of a document, and its path there; null where it is in none.
    std::pair<OpenArmoury*, std::string> find(const Json& params) {
        const auto path = path_of(params.at("textDocument").at("uri"));
        OpenArmoury* const armoury = path ? armouries_.of_file(*path) : nullptr;
        if (!armoury) return {nullptr, {}};
        return {armoury, path->lexically_relative(armoury->folder()).generic_string()};
    }

    void opened(const Json& params, const Json& text) {
        changed_ = true;
        const auto [armoury, path] = find(params);
        if (armoury) armoury->open(path, text);
    }
    Json did_open(const Json& params) {
        opened(params, params.at("textDocument").at("text"));
        return nullptr;
    }
    Json did_change(const Json& params) {
        for (const Json& change : params.at("contentChanges")) opened(params, change.at("text"));
        return nullptr;
    }
    Json did_save(const Json&) {
        changed_ = true;
        return nullptr;
    }
    Json did_close(const Json& params) {
        changed_ = true;
        const auto [armoury, path] = find(params);
        if (armoury) armoury->close(path);
        return nullptr;
    }

    std::optional<std::int32_t> file_of(const Edited& edited, const std::string& path) {
        const auto& files = edited.read.sources.files();
        for (std::size_t i = 0; i < files.size(); ++i)
            if (files[i].path == path) return static_cast<std::int32_t>(i);
        return std::nullopt;
    }

    /// None where the document is in no armoury, or its armoury can't be read.
    std::optional<At> at(const Json& params) {
        const auto [armoury, path] = find(params);
        const Edited* const edited = armoury ? armoury->edited() : nullptr;
        const auto file = edited ? file_of(*edited, path) : std::nullopt;
        if (!file) return std::nullopt;
        const Json position = params.value("position", Json{{"line", 0}, {"character", 0}});
        return At{*armoury, *edited, *file,
                  offset_of(edited->read.sources.file(*file).text,
                            {position.at("line"), position.at("character")})};
    }

    /// A place where something is named.
    struct NamedAt : At {
        Mention mention;
    };
    std::optional<NamedAt> named_at(const Json& params) {
        const auto here = at(params);
        auto mention = here ? mention_at(here->edited, here->file, here->place) : std::nullopt;
        if (!mention) return std::nullopt;
        return NamedAt{*here, std::move(*mention)};
    }

    static const std::string& text_of(const At& at, std::int32_t file) {
        return at.edited.read.sources.file(file).text;
    }
    static Json location(const At& at, const TextRange& range) {
        const Sources::File& file = at.edited.read.sources.file(range.file);
        return {{"uri", uri_of(at.armoury.folder() / file.path)},
                {"range", range_json(file.text, range)}};
    }

    Json completion(const Json& params) {
        const auto here = at(params);
        Json list = Json::array();
        if (!here) return list;
        const Suggestions found = suggestions_at(here->edited, here->file, here->place);
        const Json range = range_json(text_of(*here, here->file), found.range);
        for (const Suggestion& one : found.list) list.push_back(suggestion_json(one, range));
        return list;
    }

    Json hover(const Json& params) {
        const auto here = at(params);
        if (!here) return nullptr;
        const ToldAudit told = find_told(earlier_.memory(), here->armoury.folder().string());
        const std::string text = hover_text(here->edited, here->armoury.sound(), told,
                                            handbook_.handbook(), here->file, here->place);
        if (text.empty()) return nullptr;
        Json hover = {{"contents", {{"kind", "markdown"}, {"value", text}}}};
        if (const auto mark = mark_at(here->edited, here->file, here->place))
            hover["range"] = range_json(text_of(*here, here->file), mark->range);
        return hover;
    }

    Json definition(const Json& params) {
        const auto here = named_at(params);
        const auto range = here ? definition_of(here->edited, here->mention.thing) : std::nullopt;
        if (!range || here->edited.read.sources.file(range->file).is_sheet()) return nullptr;
        return location(*here, *range);
    }

    Json references(const Json& params) {
        Json list = Json::array();
        const auto here = named_at(params);
        if (!here) return list;
        const Json context = params.value("context", Json::object());
        for (const Mention& one : mentions_of(here->edited, here->mention.thing))
            if ((!one.defines || context.value("includeDeclaration", true)) &&
                !here->edited.read.sources.file(one.range.file).is_sheet())
                list.push_back(location(*here, one.range));
        return list;
    }

    Json prepare_rename(const Json& params) {
        const auto here = named_at(params);
        if (!here) return nullptr;
        return {{"range", range_json(text_of(*here, here->file), here->mention.range)},
                {"placeholder", here->mention.thing.id}};
    }

    Json rename_thing(const Json& params) {
        const auto here = named_at(params);
        const Result<std::vector<TextEdit>> edits =
            here ? rename(here->edited, here->mention.thing, params.at("newName"))
                 : Failure{Cause::refused, "nothing that has an id stands here", {}};
        if (!edits.ok()) {
            refused_ = edits.failure();
            return nullptr;
        }
        Json changes = Json::object();
        for (const TextEdit& edit : edits.value()) {
            const Json where = location(*here, edit.range);
            const std::string uri = where.at("uri");
            changes[uri].push_back({{"range", where.at("range")}, {"newText", edit.text}});
        }
        return {{"changes", changes}};
    }

    /// The definitions of a file.
    Json symbols(const Json& params) {
        constexpr int object = 19;
        Json list = Json::array();
        const auto here = at(params);
        if (!here) return list;
        std::set<Thing> told;
        for (const Mark& mark : marks_of(here->edited, here->file)) {
            if (mark.role != Mark::Role::id || !told.insert({mark.kind, mark.id}).second) continue;
            const Json range = range_json(text_of(*here, here->file), mark.range);
            list.push_back({{"name", fmt::format("{}.{}", mark.kind, mark.id)},
                            {"kind", object},
                            {"range", range},
                            {"selectionRange", range}});
        }
        return list;
    }

    /// Mistakes and doubts of every armoury that is not as the editor knows it. A request may have
    /// read it already.
    void tell_troubles() {
        changed_ = false;
        for (const auto& [folder, armoury] : armouries_.all()) {
            const Edited* const edited = armoury->edited();
            Told& told = told_[folder];
            if (std::exchange(told.reading, armoury->readings()) != armoury->readings())
                tell_troubles(*armoury, edited, told.files);
        }
    }

    /// `files`: those that the editor shows troubles of.
    void tell_troubles(const OpenArmoury& armoury, const Edited* edited,
                       std::set<std::string>& files) {
        std::map<std::string, Json> by_file;
        if (edited) {
            for (const Severity severity : {Severity::mistake, Severity::doubt})
                for (const Diagnostic& one : edited->read.sink.sorted(severity)) {
                    ToldTrouble told = trouble_of(edited->read.sources, one);
                    by_file[told.path].push_back(std::move(told.json));
                }
        } else {
            notify("window/showMessage", {{"type", 1}, {"message", armoury.trouble()}});
        }
        for (const std::string& path : files) by_file[path]; // nothing any more
        files.clear();
        for (auto& [path, list] : by_file) {
            if (!list.empty()) files.insert(path);
            notify("textDocument/publishDiagnostics",
                   {{"uri", uri_of(armoury.folder() / path)},
                    {"diagnostics", list.is_null() ? Json::array() : std::move(list)}});
        }
    }

    EarlierRuns earlier_;
    ProgramHandbook handbook_;
    EditorWire wire_;
    OpenArmouries armouries_;
    /// What the editor knows of an armoury's troubles.
    struct Told {
        int reading = 0;
        std::set<std::string> files; ///< that have any
    };
    std::map<fs::path, Told> told_; ///< by folder
    bool initialized_ = false, shut_down_ = false;
    bool changed_ = false;           ///< something that the editor has not been told of yet
    std::optional<Failure> refused_; ///< why the request that is answered is not done
    std::optional<int> exit_;
};

} // namespace

int run_editor(const Invocation& invocation) {
    if (!outlet().on_terminal() || isatty(STDIN_FILENO) != 0)
        return report_failure({Cause::usage,
                               "'editor' is started by an editor, which speaks to it over a pipe",
                               "README.md tells how two of them are set up"});
    return EditorSession(invocation).run();
}

} // namespace panoplon
