#include "fight/engine.h"

#include "fight/course.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

Engine::Engine(const Armoury& armoury) : field_(std::make_unique<fighting::Field>(armoury)) {}
Engine::Engine(Engine&&) noexcept = default;
Engine& Engine::operator=(Engine&&) noexcept = default;
Engine::~Engine() = default;

void Engine::prepare(const FightSetup& setup) {
    fighting::prepare(*field_, setup);
}
void Engine::prepare_character(const ActorSetup& character) {
    fighting::prepare_character(*field_, character);
}

const FightResult& Engine::run(double strength, const std::optional<Luck>& luck, Detail detail) {
    return fighting::run(*field_, strength, luck, detail, nullptr, nullptr);
}

Timeline Engine::tell(double strength, const std::optional<Luck>& luck) {
    Timeline timeline;
    fighting::run(*field_, strength, luck, Detail::ledger, &timeline, nullptr);
    return timeline;
}

const FightResult& Engine::inquire(double strength, const std::optional<Luck>& luck,
                                   Inquiry& inquiry) {
    return fighting::run(*field_, strength, luck, Detail::ledger, nullptr, &inquiry);
}

std::vector<BlowCount> Engine::blows() {
    try {
        return fighting::blows(*field_);
    } catch (const fighting::FightStopped&) {
        return {}; // a fight tells what is wrong
    }
}

std::optional<int> BlowCount::hits(double health, double damage) {
    constexpr double most = 1e6;
    // A hair less than whole hits is rounding: 10 of 10 points fell 100.
    constexpr double hair = 1e-9;
    const double needed = std::ceil(health / damage - hair);
    if (!(damage > 0) || needed > most) return std::nullopt;
    return std::max(1, static_cast<int>(needed));
}

const Armoury& Engine::armoury() const {
    return field_->rules.armoury;
}
Deriver& Engine::deriver() {
    return field_->rules.deriver;
}

} // namespace panoplon
