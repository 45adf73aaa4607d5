#include "support/editor_client.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <csignal>
#include <poll.h>
#include <sys/wait.h>
#include <unistd.h>

namespace panoplon::test {

EditorClient::EditorClient(const TempFolder& folder, bool greets) : folder_(folder) {
    int to[2] = {}, from[2] = {};
    REQUIRE((pipe(to) == 0 && pipe(from) == 0));
    const std::string cache = folder / "cache";
    process_ = fork();
    REQUIRE(process_ >= 0);
    if (process_ == 0) {
        dup2(to[0], STDIN_FILENO);
        dup2(from[1], STDOUT_FILENO);
        for (const int one : {to[0], to[1], from[0], from[1]}) ::close(one);
        setenv("XDG_CACHE_HOME", cache.c_str(), 1);
        execl(PANOPLON_BINARY, "panoplon", "editor", static_cast<char*>(nullptr));
        _exit(127);
    }
    ::close(to[0]);
    ::close(from[1]);
    to_ = to[1];
    from_ = from[0];
    std::signal(SIGPIPE, SIG_IGN);
    if (!greets) return;
    ask("initialize", {{"capabilities", Json::object()}});
    tell("initialized");
}

EditorClient::~EditorClient() {
    if (process_ > 0) end();
}

std::string EditorClient::uri(const std::string& file) const {
    std::string path;
    for (const char c : folder_ / file) path += c == ' ' ? "%20" : std::string(1, c);
    return "file://" + path;
}

void EditorClient::open(const std::string& file) {
    texts_[file] = folder_.read(file);
    tell("textDocument/didOpen",
         {{"textDocument",
           {{"uri", uri(file)}, {"languageId", "toml"}, {"version", 1}, {"text", texts_[file]}}}});
}

void EditorClient::change(const std::string& file, const std::string& text) {
    texts_[file] = text;
    told_.erase(uri(file));
    tell("textDocument/didChange", {{"textDocument", {{"uri", uri(file)}, {"version", 2}}},
                                    {"contentChanges", {{{"text", text}}}}});
}

void EditorClient::close(const std::string& file) {
    told_.erase(uri(file));
    tell("textDocument/didClose", {{"textDocument", {{"uri", uri(file)}}}});
}

EditorClient::Json EditorClient::ask_at(const std::string& method, const std::string& file,
                                        const std::string& word, std::size_t more, Json params) {
    const std::string& text = texts_.at(file);
    REQUIRE(text.find(word) != std::string::npos);
    const std::string before = text.substr(0, text.find(word) + more);
    const std::size_t line_end = before.rfind('\n');
    params["textDocument"] = {{"uri", uri(file)}};
    params["position"] = {
        {"line", std::count(before.begin(), before.end(), '\n')},
        {"character", before.size() - (line_end == std::string::npos ? 0 : line_end + 1)}};
    return ask("textDocument/" + method, std::move(params));
}

EditorClient::Json EditorClient::ask(const std::string& method, Json params) {
    const int id = ++asked_;
    const std::string text =
        Json{{"jsonrpc", "2.0"}, {"id", id}, {"method", method}, {"params", std::move(params)}}
            .dump();
    send_bytes("Content-Length: " + std::to_string(text.size()) + "\r\n\r\n" + text);
    while (true) {
        Json message = next();
        if (message.is_null() || message.value("id", Json()) == Json(id)) return message;
        keep(message);
    }
}

void EditorClient::tell(const std::string& method, Json params) {
    const std::string text =
        Json{{"jsonrpc", "2.0"}, {"method", method}, {"params", std::move(params)}}.dump();
    send_bytes("Content-Length: " + std::to_string(text.size()) + "\r\n\r\n" + text);
}

void EditorClient::send_bytes(const std::string& bytes) {
    for (std::size_t at = 0; at < bytes.size();) {
        const ssize_t written = ::write(to_, bytes.data() + at, bytes.size() - at);
        if (written <= 0) return; // it is gone, which its exit code tells
        at += static_cast<std::size_t>(written);
    }
}

void EditorClient::keep(const Json& message) {
    if (message.value("method", "") == "textDocument/publishDiagnostics")
        told_[message.at("params").at("uri")] = message.at("params").at("diagnostics");
}

EditorClient::Json EditorClient::troubles(const std::string& file) {
    while (!told_.contains(uri(file))) {
        const Json message = next();
        REQUIRE(!message.is_null());
        keep(message);
    }
    const Json found = told_.at(uri(file));
    told_.erase(uri(file));
    return found;
}

EditorClient::Json EditorClient::next() {
    while (true) {
        const std::size_t header_end = bytes_.find("\r\n\r\n");
        if (header_end != std::string::npos) {
            const std::size_t length =
                std::stoul(bytes_.substr(std::string("Content-Length: ").size()));
            const std::size_t begin = header_end + 4;
            if (bytes_.size() >= begin + length) {
                const Json message = Json::parse(bytes_.substr(begin, length));
                bytes_.erase(0, begin + length);
                return message;
            }
        }
        pollfd input{from_, POLLIN, 0};
        char more[1 << 16];
        if (::poll(&input, 1, 10'000 * patience) <= 0) return nullptr;
        const ssize_t count = ::read(from_, more, sizeof more);
        if (count <= 0) return nullptr;
        bytes_.append(more, static_cast<std::size_t>(count));
    }
}

int EditorClient::end() {
    ::close(to_);
    ::close(from_);
    int status = 0;
    waitpid(process_, &status, 0);
    process_ = -1;
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

} // namespace panoplon::test
