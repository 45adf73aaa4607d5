#include "report/workbook_memory.h"

#include "base/disk.h"

#include <fmt/format.h>
#include <sys/mman.h>
#include <unistd.h>

namespace panoplon {

namespace {

Failure workbook_failure(const std::string& why) {
    return {Cause::file, "can't make the workbook: " + why, {}};
}

} // namespace

Result<std::string> workbook_in_memory(const std::function<void(lxw_workbook*)>& fill) {
    // The library writes to a path: one that leads into memory.
    const int memory = memfd_create("workbook", MFD_CLOEXEC);
    if (memory < 0) return workbook_failure("no memory for it");
    const std::string path = fmt::format("/proc/self/fd/{}", memory);
    lxw_error error = LXW_ERROR_MEMORY_MALLOC_FAILED;
    if (lxw_workbook* const workbook = workbook_new(path.c_str())) {
        // Of no clock: the same command gives the same bytes.
        lxw_doc_properties properties{};
        properties.created = 946684800; // the first second of the year 2000
        workbook_set_properties(workbook, &properties);
        fill(workbook);
        error = workbook_close(workbook);
    }
    std::string bytes;
    const auto why = read_bytes(path, bytes);
    close(memory);
    if (error != LXW_NO_ERROR) return workbook_failure(lxw_strerror(error));
    if (why) return workbook_failure(*why);
    return bytes;
}

} // namespace panoplon
