#include "support/program.h"

#include "demo/files.h"

#include <cstdlib>
#include <sys/wait.h>

namespace panoplon::test {

Run run_program(const TempFolder& folder, const std::string& arguments, const std::string& before) {
    return run_command(folder,
                       before + " timeout " + seconds(60) + " '" PANOPLON_BINARY "' " + arguments);
}

Run run_and_kill(const TempFolder& folder, const std::string& arguments,
                 const std::string& seconds) {
    return run_command(folder, "{ '" PANOPLON_BINARY "' " + arguments + " & sleep " + seconds +
                                   "; kill -KILL $!; wait $!; }");
}

Run run_command(const TempFolder& folder, const std::string& command) {
    const std::string line = "cd '" + folder.path() +
                             "' && export XDG_CACHE_HOME=\"$PWD/cache\" && " + command +
                             " >out.txt 2>err.txt </dev/null";
    const int status = std::system(line.c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, folder.read("out.txt"),
            folder.read("err.txt")};
}

std::vector<std::string> leftovers(const std::string& folder) {
    std::vector<std::string> names;
    for (const auto& file : std::filesystem::recursive_directory_iterator(folder)) {
        const std::string name = file.path().filename().string();
        if (name.find(".part-") != std::string::npos || name.starts_with("."))
            names.push_back(name);
    }
    return names;
}

DuelFolder::DuelFolder() {
    write("a/armoury.toml", duel());
}

DemoFolder::DemoFolder() {
    for (const EmbeddedFile& file : demo_files())
        write("a/" + std::string(file.path), std::string(file.text));
}

} // namespace panoplon::test
