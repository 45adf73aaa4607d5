#include "show/journey/show_journey.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame journey_frame{.left = 110, .right = 1180};

/// The middle of a stage's column.
double middle_of(std::size_t stage, std::size_t stages) {
    return journey_frame.left + (journey_frame.right - journey_frame.left) *
                                    (static_cast<double>(stage) + 0.5) /
                                    static_cast<double>(stages);
}

void draw_power(Plot& plot, const JourneySummary& summary, const Axis& x, const Axis& y) {
    Plot::Points band, middle;
    const auto at = [&](std::size_t s, double q) {
        return std::pair(middle_of(s, summary.stages.size()),
                         y.pixel(quantile(summary.stages[s].power, q)));
    };
    std::vector<std::size_t> known;
    for (std::size_t s = 0; s < summary.stages.size(); ++s)
        if (!summary.stages[s].power.empty()) known.push_back(s);
    for (const std::size_t s : known) {
        band.push_back(at(s, 0.1));
        middle.push_back(at(s, 0.5));
    }
    for (auto s = known.rbegin(); s != known.rend(); ++s) band.push_back(at(*s, 0.9));
    const LineLook look = line_look(0);
    plot.y_axis(x, y, "power at the end of the stage: median, and p10–p90 as a band (log scale)");
    if (known.size() > 1) plot.area(band, mixed(look.colour, 0.2));
    plot.line(middle, look.colour, 2.5, look.dash);
    for (const auto& [px, py] : middle) plot.dot(px, py, 1, look.colour);
}

void draw_tries(Plot& plot, const JourneySummary& summary, const Axis& y) {
    const double half = (journey_frame.right - journey_frame.left) /
                        static_cast<double>(summary.stages.size()) * 0.3;
    for (std::size_t s = 0; s < summary.stages.size(); ++s) {
        const StageSummary& stage = summary.stages[s];
        if (stage.reached == 0) continue;
        const double x = middle_of(s, summary.stages.size());
        const double wins = y.pixel(stage.wins.mean());
        const double tries = y.pixel(stage.tries.mean());
        plot.box(x - half, y.from, x + half, wins, mixed(line_look(0).colour, 0.75));
        if (tries > wins + 0.5)
            plot.box(x - half, wins, x + half, tries, mixed(line_look(1).colour, 0.75));
        plot.text(x, tries + 10, rounded(stage.tries.mean(), 1), Plot::Anchor::centre, 10,
                  ink::dark);
    }
}

/// What stands below each stage: its encounter, and how many reach it.
class StageNames {
  public:
    StageNames(const Armoury& armoury, const Journey& journey, const JourneySummary& summary)
        : armoury_(armoury),
          journey_(journey),
          summary_(summary),
          column_((journey_frame.right - journey_frame.left) /
                  static_cast<double>(summary.stages.size())) {
        for (const Stage& stage : journey.stages)
            rise_ = rise_ || text_width(armoury.at(stage.encounter).name, 10) > column_ - 8;
    }

    /// Where the axis above them begins: names that rise need more room.
    [[nodiscard]] double foot() const { return rise_ ? 210 : 120; }

    void draw(Plot& plot, std::size_t s) const {
        const double at = middle_of(s, summary_.stages.size());
        const std::string& name = armoury_.at(journey_.stages[s].encounter).name;
        const double reached =
            static_cast<double>(summary_.stages[s].reached) / static_cast<double>(summary_.trials);
        if (!rise_) {
            plot.text(at, 98, name, Plot::Anchor::centre, 10, ink::dark);
            plot.text(at, 80, "reached by " + percent(reached), Plot::Anchor::centre, 9,
                      ink::quiet);
            return;
        }
        // As far as the canvas goes, along the name.
        const double longest = std::min(200.0, (at - 16) / std::cos(Plot::rise));
        plot.rising_text(at + 4, foot() - 34, shortened(name, longest, 10), 10, ink::dark);
        if (s == 0)
            plot.text(journey_frame.left - 4, foot() - 16, "reached by", Plot::Anchor::right, 9,
                      ink::quiet);
        const std::string share = fmt::format("{:.0f} %", reached * 100);
        if (text_width(share, 9) < column_)
            plot.text(at, foot() - 16, share, Plot::Anchor::centre, 9, ink::quiet);
    }

  private:
    const Armoury& armoury_;
    const Journey& journey_;
    const JourneySummary& summary_;
    double column_; ///< pixels
    bool rise_ = false;
};

} // namespace

Figure journey_figure(const Armoury& armoury, const Journey& journey, const JourneyOptions& options,
                      const JourneySummary& summary) {
    Plot plot(fmt::format("{}: {} on the way", journey.name, armoury.at(journey.character).name),
              fmt::format("{} · {} · seed {} · {} reach the end", armoury.name,
                          counted(summary.trials, "trial"), options.seed,
                          percent(static_cast<double>(summary.finished) /
                                  static_cast<double>(summary.trials))));
    double low = 1;
    double high = 1;
    double most = 1;
    for (const StageSummary& stage : summary.stages) {
        most = std::max(most, stage.tries.mean());
        if (stage.power.empty()) continue;
        low = std::min(low, quantile(stage.power, 0.1));
        high = std::max(high, quantile(stage.power, 0.9));
    }
    const Axis x{journey_frame.left, journey_frame.right, 0, 1, false};
    const StageNames names(armoury, journey, summary);
    const double foot = names.foot();
    const Axis power{foot + 260, 670, low / 1.1, high * 1.1, true};
    const Axis tries{foot, foot + 190, 0, most * 1.1, false};
    draw_power(plot, summary, x, power);
    plot.y_axis(x, tries, "fights that the stage takes: won, and lost on top", 4);
    draw_tries(plot, summary, tries);
    Table data{"journey",
               {as::whole("stage"), as::whole("reached"), as::number("tries", 4),
                as::number("wins", 4), as::number("p10", 5), as::number("p50", 5),
                as::number("p90", 5)}};
    for (std::size_t s = 0; s < summary.stages.size(); ++s) {
        const StageSummary& stage = summary.stages[s];
        names.draw(plot, s);
        const auto q = [&](double share) {
            return stage.power.empty() ? Cell() : Cell(quantile(stage.power, share));
        };
        data.row(
            {s + 1, stage.reached, stage.tries.mean(), stage.wins.mean(), q(0.1), q(0.5), q(0.9)});
    }
    return plot.figure("journey", std::move(data));
}

} // namespace panoplon
