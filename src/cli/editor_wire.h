// Messages between the program and an editor: JSON-RPC 2.0, each behind a header that tells its
// length, as the Language Server Protocol (3.17) has them.
#pragma once

#include "show/table.h"

#include <chrono>
#include <optional>
#include <string>

namespace panoplon {

class EditorWire {
  public:
    struct Received {
        enum class What { message, nothing, not_json, ended };
        What what = What::nothing;
        Json message = {};
        std::string trouble = {}; ///< why it ended; empty: the editor closed it
    };
    /// The next message from standard input; nothing where none is whole after so long.
    [[nodiscard]] Received next(std::chrono::milliseconds patience);
    /// False where nobody reads standard output any more.
    bool send(const Json& message);

  private:
    [[nodiscard]] std::optional<Received> take_message();

    std::string bytes_; ///< that came, and are no message yet
};

} // namespace panoplon
