// What an editor does: it starts the program, and speaks to it over a pipe.
#pragma once

#include "support/program.h"

#include <map>
#include <nlohmann/json.hpp>
#include <string>
#include <sys/types.h>
#include <vector>

namespace panoplon::test {

class EditorClient {
  public:
    using Json = nlohmann::ordered_json;

    /// Starts `panoplon editor` with a cache of its own in the folder, and says hello.
    explicit EditorClient(const TempFolder& folder, bool greets = true);
    ~EditorClient();
    EditorClient(const EditorClient&) = delete;
    EditorClient& operator=(const EditorClient&) = delete;

    /// Opens a file of the folder, with the text that it has there.
    void open(const std::string& file);
    /// Types: the file has another text now, and the disk has not.
    void change(const std::string& file, const std::string& text);
    void close(const std::string& file);

    /// Asks about the place in a file that is `more` bytes, all of ASCII, behind the first place of
    /// a word. Gives what comes back, with `result` or `error`.
    Json ask_at(const std::string& method, const std::string& file, const std::string& word,
                std::size_t more = 0, Json params = Json::object());
    Json ask(const std::string& method, Json params = Json::object());
    void tell(const std::string& method, Json params = Json::object());
    void send_bytes(const std::string& bytes);

    /// Waits until the program has told of the troubles of a file, and gives them; fails the test
    /// where it does not within ten seconds.
    Json troubles(const std::string& file);
    /// The next message, of whatever kind; null where none comes.
    Json next();
    /// Closes the pipe to the program and waits for it.
    int end();

    [[nodiscard]] std::string uri(const std::string& file) const;
    [[nodiscard]] const std::string& text(const std::string& file) const { return texts_.at(file); }

  private:
    void keep(const Json& message);

    const TempFolder& folder_;
    pid_t process_ = -1;
    int to_ = -1, from_ = -1;
    int asked_ = 0;
    std::string bytes_;
    std::map<std::string, std::string> texts_; ///< by file
    std::map<std::string, Json> told_;         ///< troubles by URI, that nobody asked for yet
};

} // namespace panoplon::test
