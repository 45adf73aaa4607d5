#include "cli/started_ranks.h"

#include <cstdlib>
#include <dlfcn.h>
#include <filesystem>
#include <fmt/format.h>
#include <vector>

namespace panoplon {

namespace {

/// How many processes a launcher has started; each sets one of these variables.
int processes_started() {
    for (const char* variable : {"OMPI_COMM_WORLD_SIZE", "PMI_SIZE", "SLURM_STEP_NUM_TASKS"})
        if (const char* value = std::getenv(variable)) return std::atoi(value);
    return 1;
}

constexpr const char* library = "panoplon-mpi.so";

/// Beside the program where it was built, below lib where it is installed.
std::vector<std::filesystem::path> places_of_library() {
    std::error_code error;
    const std::filesystem::path program = std::filesystem::read_symlink("/proc/self/exe", error);
    const std::filesystem::path folder = program.parent_path();
    return {folder / library, folder.parent_path() / "lib" / "panoplon" / library};
}

} // namespace

Result<Post*> started_post() {
    const int processes = processes_started();
    if (processes < 2) return static_cast<Post*>(nullptr);
    std::string why = "it is not there";
    for (const std::filesystem::path& path : places_of_library()) {
        std::error_code error;
        if (!std::filesystem::exists(path, error)) continue;
        if (void* loaded = dlopen(path.c_str(), RTLD_NOW | RTLD_GLOBAL)) {
            using Make = Post*();
            if (auto* make = reinterpret_cast<Make*>(dlsym(loaded, "panoplon_mpi_post"))) {
                Post* post = make();
                if (post->count() == static_cast<std::size_t>(processes)) return post;
                return Failure{Cause::refused,
                               fmt::format("this is one of {} processes, of which MPI sees {}: it "
                                           "was started by the launcher of another MPI",
                                           processes, post->count()),
                               "start it by mpirun of Open MPI"};
            }
        }
        why = dlerror();
        break;
    }
    return Failure{Cause::refused,
                   fmt::format("this is one of {} processes, and they can't work together without "
                               "{}: {}",
                               processes, library, why),
                   "install the package panoplon-mpi, or build with libopenmpi-dev; or start one "
                   "process alone"};
}

} // namespace panoplon
