// Runs on several ranks, started by mpirun as on a cluster.
#include "support/program.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Ranks share this machine's processors, whoever is logged in. Under a sanitizer of leaks: MPI
/// never gives back all that it took.
std::string on(int ranks, const std::string& more = {}) {
    return "OMPI_ALLOW_RUN_AS_ROOT=1 OMPI_ALLOW_RUN_AS_ROOT_CONFIRM=1 ASAN_OPTIONS=detect_leaks=0 "
           "XDG_CACHE_HOME=$PWD/cache" +
           more + " timeout " + seconds(300) + " mpirun --oversubscribe --bind-to none -n " +
           std::to_string(ranks) + " ";
}

/// What a command wrote into `told`, but for the record of runs, which has the time.
std::string written(const TempFolder& folder) {
    const Run run = run_command(
        folder, "(cd told && find . -type f ! -name '*.sqlite' | sort | xargs sha256sum)");
    REQUIRE(run.exit == 0);
    return run.out;
}

} // namespace

TEST_CASE("ranks: the same bytes from any number of ranks and threads", "[M98]") {
    const DemoFolder folder;
    const auto same = [&](const std::string& command) {
        const std::string whole = command + " -q --json -o told";
        const Run alone = run_program(folder, whole);
        REQUIRE(alone.exit == 0);
        const std::string files = written(folder);
        for (const int ranks : {2, 3})
            for (const char* threads : {" --threads 1", " --threads 2"}) {
                CAPTURE(command, ranks, threads);
                REQUIRE(run_command(folder, "rm -r told").exit == 0);
                const Run run = run_program(folder, whole + threads, on(ranks));
                INFO(run.err);
                CHECK(run.exit == 0);
                CHECK(run.out == alone.out);
                CHECK(written(folder) == files);
            }
        REQUIRE(run_command(folder, "rm -r told").exit == 0);
    };
    same("audit a --character ringer --level 3-4 --trials 0 --anew");
    same("audit a --character ringer --level 5 --item reed_coat --item felt_gloves --trials 20 "
         "--anew");
    same("audit a --character ringer --level 5 --trials 20 --by tier --pairs");
    same("curve a --by tier --character ringer --level 1-3 --even-luck --anew");
    same("curve a --loadout ringer_early --trials 20");
    same("best a --character ringer --level 5 --anew");
    same("fight a ringer_early causeway --level 6 --trials 20000 --margin");
    same("fight a ringer_early causeway --other warden_early --precision 0.02");
    same("journey a plank_walk --trials 130");
    // With what the first knows from an audit, and without.
    same("tune a --all --character ringer --level 5");
    same("tune a rush_knot --character ringer --level 5");
    same("tune a rush_knot add.max_health --character ringer --level 5 --anew");
}

TEST_CASE("ranks: the first alone writes what an option names", "[M98]") {
    const DemoFolder folder;
    const Run run = run_program(
        folder, "fight a ringer_early causeway --trials 100 --timeline told/fight.csv", on(3));
    INFO(run.err);
    CHECK(run.exit == 3); // there is no such folder: said once
    CHECK(run.err.find("told/fight.csv") == run.err.rfind("told/fight.csv"));
}

TEST_CASE("ranks: every command ends, with its exit code and its words once", "[M98]") {
    const DemoFolder folder;
    const Run list = run_program(folder, "list a tier", on(3));
    CHECK(list.exit == 0);
    CHECK(list.out == run_program(folder, "list a tier").out);
    CHECK(run_program(folder, "audit nowhere", on(2)).exit == 3);
    const Run failed = run_program(
        folder, "audit a -q --character ringer --level 5 --trials 0 --fail-on strong", on(2));
    CHECK(failed.exit == 4);
    const std::string first_line = failed.out.substr(0, failed.out.find('\n'));
    CHECK(failed.out.find(first_line, 1) == std::string::npos);
    // What the ranks have found together is not known from before; by the next run it is.
    const std::string again = "audit a --character ringer --level 2 --trials 0";
    CHECK_FALSE(has(run_program(folder, again, on(2)).err, "known from before"));
    CHECK(has(run_program(folder, again, on(2)).err, "searches were known from before"));
    // The first has nowhere to write, which the others can't know.
    const Run nowhere = run_program(
        folder, "audit a -q --character ringer --level 5 --trials 0 -o a/inside", on(2));
    CHECK(nowhere.exit == 1);
}

TEST_CASE("ranks: one that is killed ends the run, and the next goes on from there", "[M98]") {
    const DemoFolder folder;
    const std::string audit = "audit a --character ringer --step 10 --trials 0 -o told --threads 1";
    REQUIRE(run_program(folder, audit + " -q --anew", on(1)).exit == 0);
    const std::string files = written(folder);
    REQUIRE(run_command(folder, "rm -r told").exit == 0);
    // Once something is known, some other rank than the first is killed.
    const std::string script =
        "cat > kill_one <<'END'\n"
        "\"$@\" & run=$!\n"
        "for i in $(seq 600); do\n"
        "  known=$(sqlite3 cache/panoplon/known.sqlite 'select count(*) from answer' 2>/dev/null)\n"
        "  [ \"${known:-0}\" -ge 4 ] && break\n"
        "  sleep 0.1\n"
        "done\n"
        "for process in $(pgrep -f 'audit a --character ringer --step 10'); do\n"
        "  tr '\\0' '\\n' </proc/$process/environ | grep -q '^OMPI_COMM_WORLD_RANK=1$' &&\n"
        "    kill -9 $process\n"
        "done\n"
        "wait $run\n"
        "END\n";
    REQUIRE(run_command(folder, script).exit == 0);
    const Run killed = run_program(folder, audit, "sh kill_one env " + on(3));
    INFO(killed.err);
    CHECK(killed.exit != 0);
    const Run next = run_program(folder, audit, on(2));
    INFO(next.err);
    CHECK(next.exit == 0);
    CHECK(has(next.err, "known from before"));
    CHECK(written(folder) == files);
}

TEST_CASE("ranks: without what speaks to the others it says how to get it", "[M98]") {
    const DuelFolder folder;
    REQUIRE(run_command(folder, "cp " PANOPLON_BINARY " alone").exit == 0);
    const Run run = run_command(folder, on(2) + "./alone check a");
    CHECK(run.exit == 1);
    CHECK(has(run.err, "this is one of 2 processes"));
    CHECK(has(run.err, "install the package panoplon-mpi"));
    CHECK(run_command(folder, on(1) + "./alone check a").exit ==
          run_command(folder, "./alone check a").exit);
}

TEST_CASE("ranks: the packages that are installed work together", "[M98]") {
    const DuelFolder folder;
    REQUIRE(
        run_command(folder, "cpack -G DEB --config '" PANOPLON_BUILD "/CPackConfig.cmake' -B made")
            .exit == 0);
    REQUIRE(
        run_command(folder, "sh -c 'for deb in made/*.deb; do dpkg-deb -x $deb root; done'").exit ==
        0);
    const std::string needs =
        run_command(folder, "dpkg-deb -f made/panoplon-mpi_*.deb Depends").out;
    CHECK(has(needs, "panoplon (= "));
    CHECK(has(needs, "libopenmpi"));
    CHECK_FALSE(has(run_command(folder, "dpkg-deb -f made/panoplon_*.deb Depends").out, "mpi"));
    const Run run = run_command(folder, on(2) + "root/usr/bin/panoplon check a");
    CHECK(run.exit == 0);
    CHECK_FALSE(has(run.err, "work together"));
}

TEST_CASE("ranks: nothing of MPI is loaded where a process is alone", "[M98]") {
    const DuelFolder folder;
    const Run run = run_command(folder, "LD_DEBUG=libs " PANOPLON_BINARY " check a");
    CHECK(has(run.err, "libfmt"));
    CHECK_FALSE(has(run.err, "libmpi"));
}
