#include "report/page.h"

#include <pugixml.hpp>
#include <sstream>

namespace panoplon {

namespace {

constexpr const char* layer_prefix = "gnuplot_plot_";

bool begins_with(const char* text, const char* with) {
    return std::string_view(text).starts_with(with);
}

/// "#x" and "url(#x)" name ids too.
void rename_ids(pugi::xml_node node, const std::string& prefix) {
    for (pugi::xml_attribute attribute : node.attributes()) {
        const std::string name = attribute.name();
        std::string value = attribute.value();
        if (name == "id")
            attribute.set_value((prefix + value).c_str());
        else if ((name == "xlink:href" || name == "href") && value.starts_with("#"))
            attribute.set_value(("#" + prefix + value.substr(1)).c_str());
        else if (value.starts_with("url(#"))
            attribute.set_value(("url(#" + prefix + value.substr(5)).c_str());
    }
    for (pugi::xml_node child : node.children()) rename_ids(child, prefix);
}

/// The script names bold faces as fonts do that are installed; a page says it apart.
void part_weight_from_font(pugi::xml_node node) {
    pugi::xml_attribute font = node.attribute("font-family");
    const std::string family = font.value();
    const std::size_t colon = family.find(':');
    if (colon != std::string::npos) {
        font.set_value(family.substr(0, colon).c_str());
        node.append_attribute("font-weight") = "bold";
    }
    for (pugi::xml_node child : node.children()) part_weight_from_font(child);
}

/// Each layer is titled with its place among them: that becomes what the figure says of it.
void title_layers(pugi::xml_node node, const Figure& figure) {
    if (begins_with(node.attribute("id").value(), layer_prefix)) {
        const int number =
            std::atoi(node.attribute("id").value() + std::string_view(layer_prefix).size());
        const auto at = static_cast<std::size_t>(number - 1);
        const std::string words = at < figure.hovers.size() ? figure.hovers[at] : std::string();
        if (words.empty())
            node.remove_child("title");
        else
            node.child("title").text().set(words.c_str());
    }
    for (pugi::xml_node child : node.children()) title_layers(child, figure);
}

} // namespace

std::string svg_for_page(const std::string& svg, const Figure& figure, const std::string& prefix) {
    pugi::xml_document document;
    if (!document.load_string(svg.c_str(), pugi::parse_default | pugi::parse_ws_pcdata)) return {};
    pugi::xml_node root = document.child("svg");
    if (!root) return {};
    root.remove_attribute("width");
    root.remove_attribute("height");
    root.remove_child("desc");
    title_layers(root, figure);
    part_weight_from_font(root);
    rename_ids(root, prefix);
    root.append_attribute("role") = "img";
    root.append_attribute("aria-label") = figure.title.c_str();
    root.child("title").text().set(figure.title.c_str());
    std::ostringstream text;
    root.print(text, "", pugi::format_raw);
    return text.str();
}

} // namespace panoplon
