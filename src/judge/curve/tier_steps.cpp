#include "judge/curve/tier_steps.h"

namespace panoplon {

std::vector<TierStep> find_tier_steps(const Armoury& armoury, LevelRange levels,
                                      const std::vector<CharacterId>& characters,
                                      const Watch& watch, const Recall& recall) {
    if (!armoury.yardstick.given() || armoury.tiers.size() < 2) return {};
    CurveOptions options;
    options.by = CurveBy::tier;
    options.characters = characters;
    options.encounters = {armoury.yardstick};
    options.levels = levels;
    options.trials = 0;
    const CurveResult result = draw_curves(armoury, options, watch, recall);
    std::vector<TierStep> steps;
    for (const Finding& finding : result.findings) {
        if (finding.kind != "tier_step") continue;
        const Curve& curve = result.curves[finding.curve];
        steps.push_back(
            {curve.character, curve.tier, finding.size, finding.level, finding.sentence});
    }
    return steps;
}

} // namespace panoplon
