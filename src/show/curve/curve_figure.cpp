#include "show/curve/show_curve.h"
#include "show/plot.h"

#include "base/text.h"
#include "model/corridor.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

struct CurveFrame {
    Axis x, y;

    /// Where a margin is, or the nearer end of the axis.
    [[nodiscard]] double within(double margin) const {
        return y.pixel(std::clamp(margin, y.log ? y.low : 0, y.high));
    }
};

/// As many lines as colours and dashes tell apart.
constexpr std::size_t most_lines = 12;

using Corridors = std::vector<std::pair<int, Corridor>>; ///< by level

/// The corridors of the levels that the curves are drawn at; empty where none is wanted.
Corridors corridors_of(const Armoury& armoury, const std::vector<const Curve*>& curves) {
    std::map<int, Corridor> by_level;
    for (const Curve* curve : curves)
        for (const CurvePoint& point : curve->points)
            if (const auto wanted = wanted_corridor(armoury, curve->encounter, point.level))
                by_level[point.level] = *wanted;
    return {by_level.begin(), by_level.end()};
}

/// Axes around every band of the curves and the corridor.
CurveFrame frame_for(const Armoury& armoury, const std::vector<const Curve*>& curves,
                     const Corridors& corridors, bool linear) {
    double low = curves.front()->points.front().p10;
    double high = low;
    int first = curves.front()->points.front().level;
    int last = first;
    for (const Curve* curve : curves)
        for (const CurvePoint& point : curve->points) {
            low = std::min(low, point.p10);
            high = std::max(high, point.p90);
            first = std::min(first, point.level);
            last = std::max(last, point.level);
        }
    // An even match and what is wanted, as far as the curves come near them.
    constexpr double near = 1.5;
    const auto reach = [&, low_of_curves = low, high_of_curves = high](double margin) {
        if (margin <= 0) return;
        low = std::min(low, std::max(margin, low_of_curves / near));
        high = std::max(high, std::min(margin, high_of_curves * near));
    };
    reach(1);
    for (const auto& [level, corridor] : corridors) {
        reach(corridor.low);
        reach(corridor.high);
    }
    double widest = 0; // of the labels, in pixels
    for (const Curve* curve : curves)
        widest = std::max(widest, text_width(curve_label(armoury, *curve), 12));
    const double right = std::clamp(canvas_width - 60 - widest, 900.0, 1050.0);
    return {Axis{90, right, static_cast<double>(first),
                 static_cast<double>(std::max(last, first + 1)), false},
            linear ? Axis{90, 690, 0, high * 1.05, false}
                   : Axis{90, 690, low / 1.12, high * 1.12, true}};
}

Plot::Points band_outline(const Curve& curve, const CurveFrame& frame) {
    Plot::Points outline;
    for (const CurvePoint& p : curve.points)
        outline.emplace_back(frame.x.pixel(p.level), frame.y.pixel(p.p10));
    for (auto p = curve.points.rbegin(); p != curve.points.rend(); ++p)
        outline.emplace_back(frame.x.pixel(p->level), frame.y.pixel(p->p90));
    return outline;
}

Plot::Points corridor_outline(const Corridors& corridors, const CurveFrame& frame) {
    Plot::Points outline;
    for (const auto& [level, corridor] : corridors)
        outline.emplace_back(frame.x.pixel(level), frame.within(corridor.low));
    for (auto c = corridors.rbegin(); c != corridors.rend(); ++c)
        outline.emplace_back(frame.x.pixel(c->first), frame.within(c->second.high));
    return outline;
}

Table figure_data(const Armoury& armoury, const std::string& name,
                  const std::vector<const Curve*>& curves) {
    Table table{name,
                {as::text("curve"), as::whole("level"), as::number("p10", 5), as::number("p50", 5),
                 as::number("p90", 5), as::number("even_luck", 5)}};
    for (const Curve* curve : curves)
        for (const CurvePoint& p : curve->points)
            table.row({curve_subject(armoury, *curve), p.level, p.p10, p.p50, p.p90, p.even.value});
    return table;
}

/// What a figure is called: its file, and its title.
struct Title {
    std::string name, words;
};

Title title_of(const Armoury& armoury, const Curve& curve) {
    const Encounter& encounter = armoury.at(curve.encounter);
    const Character& character = armoury.at(curve.character);
    const std::string what = curve.power ? "power" : encounter.id;
    const std::string over = curve.power
                                 ? std::string("Power over level")
                                 : fmt::format("Margin over level against {}", encounter.name);
    switch (curve.by) {
    case CurveBy::loadout: return {"curve-" + what, over};
    case CurveBy::character: return {"curve-best-" + what, over + ", the best of all gear"};
    case CurveBy::tier:
        return {fmt::format("curve-tiers-{}-{}", character.id, what),
                fmt::format("{}: {}, the best of each tier and below", over, character.name)};
    case CurveBy::encounter: break;
    }
    return {"curve-best-" + character.id,
            fmt::format("Margin over level: {}, the best of all gear", character.name)};
}

/// Whether two curves stand in one figure.
bool together(const Curve& a, const Curve& b) {
    if (a.by == CurveBy::encounter) return a.character == b.character;
    return a.encounter == b.encounter && (a.by != CurveBy::tier || a.character == b.character);
}

std::string point_words(const Armoury& armoury, const Curve& curve, const CurvePoint& point) {
    const std::string band =
        point.trials > 0 ? fmt::format(" ({:.2f}–{:.2f})", point.p10, point.p90) : "";
    return fmt::format("{}, level {}: {:.2f}{}", curve_label(armoury, curve), point.level,
                       point.p50, band);
}

/// Findings that have a place on their curve, the largest first.
std::vector<const Finding*> findings_to_mark(const CurveResult& result,
                                             const std::vector<const Curve*>& curves) {
    std::vector<const Finding*> marked;
    for (const Finding& finding : result.findings) {
        const Curve* curve = &result.curves[finding.curve];
        const bool has_place = finding.kind == "crossing" || finding.kind == "jump" ||
                               finding.kind == "dip" || finding.kind == "stall" ||
                               finding.kind == "band";
        if (has_place && std::find(curves.begin(), curves.end(), curve) != curves.end())
            marked.push_back(&finding);
    }
    std::stable_sort(marked.begin(), marked.end(),
                     [](const Finding* a, const Finding* b) { return a->size > b->size; });
    constexpr std::size_t most = 14;
    if (marked.size() > most) marked.resize(most);
    return marked;
}

/// What was found at a place, of one curve or of several that meet there.
struct Mark {
    double x, y;
    std::vector<std::string> kinds;
};

/// Adds a mark, or its kinds to one that stands in the same place.
void add_mark(std::vector<Mark>& marks, const Mark& mark) {
    constexpr double same_place = 8; // pixels
    for (Mark& there : marks) {
        if (std::hypot(there.x - mark.x, there.y - mark.y) > same_place) continue;
        for (const std::string& kind : mark.kinds)
            if (std::find(there.kinds.begin(), there.kinds.end(), kind) == there.kinds.end())
                there.kinds.push_back(kind);
        return;
    }
    marks.push_back(mark);
}

/// Writes what each mark says beside it, on the first side on which it covers no other's words.
void label_marks(Plot& plot, const std::vector<Mark>& marks) {
    struct Box {
        double left, right, low, high;
    };
    constexpr double letter = 6, half_a_line = 6.5, aside = 6, above = 9; // pixels
    std::vector<Box> taken;
    for (const Mark& mark : marks) {
        const std::string words = join(mark.kinds, ", ");
        const double width = letter * static_cast<double>(words.size());
        const auto box = [&](bool left, bool up) {
            const double x = left ? mark.x - aside - width : mark.x + aside;
            const double y = up ? mark.y + above : mark.y - above;
            return Box{x, x + width, y - half_a_line, y + half_a_line};
        };
        const auto is_free = [&](const Box& one) {
            return std::none_of(taken.begin(), taken.end(), [&](const Box& other) {
                return one.left < other.right && other.left < one.right && one.low < other.high &&
                       other.low < one.high;
            });
        };
        Box place = box(true, true);
        bool left = true;
        for (const auto& [to_left, up] : {std::pair(true, true), std::pair(false, false),
                                          std::pair(true, false), std::pair(false, true)})
            if (is_free(box(to_left, up))) {
                place = box(to_left, up);
                left = to_left;
                break;
            }
        taken.push_back(place);
        plot.text(left ? place.right : place.left, (place.low + place.high) / 2, words,
                  left ? Plot::Anchor::right : Plot::Anchor::left, 9, ink::quiet);
    }
}

/// Of a tier in its own colour, where the armoury gives one; the dash tells curves apart without.
LineLook look_of(const Armoury& armoury, const std::vector<const Curve*>& curves, std::size_t n) {
    LineLook look = line_look(n);
    const TierId tier = curves[n]->by == CurveBy::tier ? curves[n]->tier : TierId();
    if (tier.given() && armoury.at(tier).colour_given)
        look.colour = line_colour(armoury.at(tier).ink);
    return look;
}

/// Says what the tint is, at the first of its corners that no curve comes near.
void name_corridor(Plot& plot, const Corridors& wanted, const CurveFrame& frame,
                   const std::vector<const Curve*>& curves) {
    constexpr double aside = 8, above = 12; // pixels
    const double width = text_width("wanted", 10);
    const auto is_free = [&](double from, double y) {
        for (const Curve* curve : curves)
            for (const CurvePoint& point : curve->points) {
                const double px = frame.x.pixel(point.level);
                const double py = frame.y.pixel(point.p50);
                if (px > from - 30 && px < from + width + 30 && std::abs(py - y) < 20) return false;
            }
        return y < frame.y.to + above && y > frame.y.from;
    };
    const double left = frame.x.pixel(wanted.front().first) + aside;
    const double right = frame.x.pixel(wanted.back().first) - aside - width;
    const std::pair<double, double> corners[] = {
        {right, frame.within(wanted.back().second.high) - above},
        {right, frame.within(wanted.back().second.low) + above},
        {left, frame.within(wanted.front().second.high) - above},
        {left, frame.within(wanted.front().second.low) + above},
    };
    const auto* corner = std::find_if(std::begin(corners), std::end(corners), [&](const auto& one) {
        return is_free(one.first, one.second);
    });
    if (corner == std::end(corners)) corner = corners;
    plot.text(corner->first, corner->second, "wanted", Plot::Anchor::left, 10, ink::quiet);
}

/// A dot where something was found, with its kind beside it.
void mark_findings(Plot& plot, const Armoury& armoury, const CurveFrame& frame,
                   const CurveResult& result, const std::vector<const Curve*>& curves) {
    const std::vector<const Finding*> marked = findings_to_mark(result, curves);
    std::vector<Mark> marks;
    for (std::size_t c = 0; c < curves.size(); ++c)
        for (const CurvePoint& p : curves[c]->points) {
            Mark mark{frame.x.pixel(p.level), frame.y.pixel(p.p50), {}};
            for (const Finding* finding : marked)
                if (&result.curves[finding->curve] == curves[c] && finding->level == p.level)
                    mark.kinds.push_back(finding->kind);
            if (mark.kinds.empty()) continue;
            plot.dot(mark.x, mark.y, 0.9, look_of(armoury, curves, c).colour);
            add_mark(marks, mark);
        }
    label_marks(plot, marks);
}

/// One of several figures (`page`, from 0) where there are more lines than one can show.
Figure draw(const Armoury& armoury, const CurveOptions& options, const CurveResult& result,
            const std::vector<const Curve*>& curves, std::size_t page, std::size_t pages) {
    const bool power = curves.front()->power;
    const bool mixed_encounters = curves.front()->by == CurveBy::encounter;
    const Encounter& encounter = armoury.at(curves.front()->encounter);
    Title title = title_of(armoury, *curves.front());
    if (pages > 1) {
        title.name += fmt::format("-{}", page + 1);
        title.words += fmt::format(" ({} of {})", page + 1, pages);
    }
    const std::string& name = title.name;
    const Corridors wanted = mixed_encounters ? Corridors() : corridors_of(armoury, curves);
    const CurveFrame frame = frame_for(armoury, curves, wanted, options.linear);
    const std::string luck = options.trials > 0
                                 ? fmt::format("median of {} trials a level, band p10–p90, seed {}",
                                               options.trials, options.seed)
                                 : "by even luck";
    Plot plot(title.words,
              fmt::format("{} · {} · {}", armoury.name,
                          power && !mixed_encounters
                              ? fmt::format("margin against the yardstick, {}", encounter.name)
                              : "1 is an even match",
                          luck));
    if (!wanted.empty()) plot.area(corridor_outline(wanted, frame), ink::tint);
    plot.y_axis(frame.x, frame.y, options.linear ? "margin" : "margin (log scale)");
    plot.x_axis(frame.x, frame.y, "level");
    if (frame.y.low <= 1 && frame.y.high >= 1)
        plot.line({{frame.x.from, frame.y.pixel(1)}, {frame.x.to, frame.y.pixel(1)}}, ink::quiet,
                  1);
    for (std::size_t i = 0; i < curves.size(); ++i)
        plot.area(band_outline(*curves[i], frame), mixed(look_of(armoury, curves, i).colour, 0.18));
    std::vector<Plot::EndLabel> labels;
    // The first curve on top: where a rung of a ladder is the one below it, that one shows.
    for (std::size_t i = curves.size(); i-- > 0;) {
        Plot::Points middle;
        for (const CurvePoint& p : curves[i]->points)
            middle.emplace_back(frame.x.pixel(p.level), frame.y.pixel(p.p50));
        const LineLook look = look_of(armoury, curves, i);
        plot.about(curve_label(armoury, *curves[i]));
        plot.line(middle, look.colour, 2.5, look.dash);
        for (const CurvePoint& p : curves[i]->points) {
            plot.about(point_words(armoury, *curves[i], p));
            plot.dot(frame.x.pixel(p.level), frame.y.pixel(p.p50), 0.45, look.colour);
        }
        plot.about({});
        if (middle.size() == 1)
            plot.dot(middle.front().first, middle.front().second, 1, look.colour);
        labels.push_back({middle.back().second, curve_label(armoury, *curves[i]), look.colour,
                          curves.size() > 6 ? look.dash : 0});
        if (middle.back().first < frame.x.to - 1)
            plot.line({middle.back(), {frame.x.to, middle.back().second}}, mixed(look.colour, 0.35),
                      1, 3);
    }
    mark_findings(plot, armoury, frame, result, curves);
    if (!wanted.empty()) name_corridor(plot, wanted, frame, curves);
    plot.end_labels(frame.x.to + 12, labels, frame.y.from, frame.y.to);
    return plot.figure(name, figure_data(armoury, name, curves));
}

} // namespace

std::vector<Figure> curve_figures(const Armoury& armoury, const CurveOptions& options,
                                  const CurveResult& result) {
    std::vector<std::vector<const Curve*>> groups;
    for (const Curve& curve : result.curves) {
        if (curve.points.empty()) continue;
        const auto group =
            std::find_if(groups.begin(), groups.end(), [&](const std::vector<const Curve*>& one) {
                return together(*one.front(), curve);
            });
        if (group == groups.end())
            groups.push_back({&curve});
        else
            group->push_back(&curve);
    }
    std::vector<Figure> figures;
    for (auto& group : groups) {
        const std::size_t pages = (group.size() + most_lines - 1) / most_lines;
        if (pages > 1) // those of one character stand together
            std::stable_sort(group.begin(), group.end(), [](const Curve* a, const Curve* b) {
                return a->character < b->character;
            });
        for (std::size_t page = 0; page < pages; ++page) {
            const auto at = [&](std::size_t p) {
                return group.begin() + static_cast<std::ptrdiff_t>(p * group.size() / pages);
            };
            figures.push_back(
                draw(armoury, options, result, {at(page), at(page + 1)}, page, pages));
        }
    }
    return figures;
}

} // namespace panoplon
