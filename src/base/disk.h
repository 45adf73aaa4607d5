// Files that are read whole, and that are on the disk before anybody says so.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace panoplon {

/// Whether something other than a file has this name, as a folder, a pipe or a device.
[[nodiscard]] bool is_no_file(const std::string& path);

/// Reads a whole file; why that failed, where it did.
[[nodiscard]] std::optional<std::string> read_bytes(const std::string& path, std::string& into);

/// Writes a file from its beginning and syncs it; why that failed, where it did.
[[nodiscard]] std::optional<std::string> write_synced(const std::string& path,
                                                      std::string_view content);

/// Syncs a file that another program wrote; why that failed, where it did.
[[nodiscard]] std::optional<std::string> sync_file(const std::string& path);

} // namespace panoplon
