// Workbooks of Office Open XML: shared and inline texts, numbers with the format that they are
// shown in, results of formulas.
#include "armoury/workbook_parts.h"

#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <map>
#include <string_view>

namespace panoplon {

namespace {

enum class Shown { number, percentage, date };

/// A path in the archive, which a part refers to from its own folder.
std::string path_from(const std::string& part, std::string target) {
    if (target.starts_with('/')) return target.substr(1);
    std::string folder = part.substr(0, part.rfind('/') + 1);
    while (target.starts_with("../")) {
        target.erase(0, 3);
        if (!folder.empty()) folder.pop_back();
        folder = folder.substr(0, folder.rfind('/') + 1);
    }
    return folder + target;
}

/// What a part refers to: by id, or the first of a type where `of_type` is asked for.
class Relations {
  public:
    Relations(const Archive& archive, const std::string& part) : part_(part) {
        const std::size_t slash = part.rfind('/') + 1;
        archive.load(part.substr(0, slash) + "_rels/" + part.substr(slash) + ".rels", document_);
    }
    [[nodiscard]] std::string by_id(const std::string& id) const {
        for (const pugi::xml_node one : document_.child("Relationships"))
            if (id == one.attribute("Id").value()) return path(one);
        return {};
    }
    [[nodiscard]] std::string of_type(std::string_view type) const {
        for (const pugi::xml_node one : document_.child("Relationships"))
            if (std::string_view(one.attribute("Type").value()).ends_with(type)) return path(one);
        return {};
    }

  private:
    [[nodiscard]] std::string path(const pugi::xml_node& one) const {
        return path_from(part_, one.attribute("Target").value());
    }

    std::string part_;
    pugi::xml_document document_;
};

/// The text of an item of texts: of `t`, and of the `t` of each of its runs.
std::string text_of(const pugi::xml_node& item) {
    std::string text = item.child("t").text().get();
    for (const pugi::xml_node run : item.children("r")) text += run.child("t").text().get();
    return text;
}

/// How a format of numbers shows them, whatever stands in quotes.
Shown shown_by(std::string_view code) {
    bool quoted = false, bracketed = false;
    for (std::size_t i = 0; i < code.size(); ++i) {
        const char c = code[i];
        if (c == '"') quoted = !quoted;
        if (c == '[' || c == ']') bracketed = c == '[';
        if (c == '\\') ++i;
        if (quoted || bracketed || c == '\\') continue;
        if (c == '%') return Shown::percentage;
        if (std::string_view("ymdhs").find(c) != std::string_view::npos) return Shown::date;
    }
    return Shown::number;
}

/// By cell format: how it shows a number.
std::vector<Shown> read_formats(const Archive& archive, const std::string& path) {
    pugi::xml_document document;
    if (!path.empty()) archive.load(path, document);
    const pugi::xml_node styles = document.child("styleSheet");
    std::map<int, Shown> own;
    for (const pugi::xml_node one : styles.child("numFmts"))
        own[one.attribute("numFmtId").as_int()] = shown_by(one.attribute("formatCode").value());
    std::vector<Shown> formats;
    for (const pugi::xml_node one : styles.child("cellXfs").children("xf")) {
        const int id = one.attribute("numFmtId").as_int();
        const bool percentage = id == 9 || id == 10; // as the standard numbers them
        const bool date = (id >= 14 && id <= 22) || (id >= 45 && id <= 47);
        const auto known = own.find(id);
        formats.push_back(known != own.end() ? known->second
                          : percentage       ? Shown::percentage
                          : date             ? Shown::date
                                             : Shown::number);
    }
    return formats;
}

/// Days since the end of 1899, as these workbooks count them.
std::string shown_date(double days) {
    using namespace std::chrono;
    constexpr double most = 3e6;
    if (!(days >= 0 && days < most)) return shown_number(days, false);
    const year_month_day date(sys_days(year(1899) / 12 / 30) +
                              std::chrono::days(static_cast<int>(std::floor(days))));
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()));
}

/// The column of a reference like `AB12`, from 0.
std::optional<std::size_t> column_of(std::string_view reference) {
    std::size_t column = 0;
    std::size_t letters = 0;
    for (const char c : reference) {
        if (c < 'A' || c > 'Z') break;
        column = column * 26 + static_cast<std::size_t>(c - 'A' + 1);
        if (++letters > 3) return std::nullopt;
    }
    return letters == 0 ? std::nullopt : std::optional(column - 1);
}

class SheetReader {
  public:
    SheetReader(const std::vector<std::string>& texts, const std::vector<Shown>& formats)
        : texts_(texts),
          formats_(formats) {}

    void read(const pugi::xml_document& document, WorkbookSheet& into) const {
        SheetFiller filler(into);
        std::size_t row = 0;
        for (const pugi::xml_node line :
             document.child("worksheet").child("sheetData").children("row")) {
            if (const auto given = line.attribute("r").as_ullong()) row = given - 1;
            std::size_t column = 0;
            for (const pugi::xml_node cell : line.children("c")) {
                column = column_of(cell.attribute("r").value()).value_or(column);
                filler.put(row, column++, said(cell));
            }
            ++row;
        }
    }

  private:
    [[nodiscard]] std::string said(const pugi::xml_node& cell) const {
        const std::string_view type = cell.attribute("t").value();
        const std::string value = cell.child("v").text().get();
        if (type == "inlineStr") return text_of(cell.child("is"));
        if (type == "s") {
            const auto at = static_cast<std::size_t>(std::strtoul(value.c_str(), nullptr, 10));
            return at < texts_.size() ? texts_[at] : std::string();
        }
        if (type == "b") return value == "1" ? "true" : "false";
        if (type == "str" || type == "e" || type == "d" || value.empty()) return value;
        double number = 0;
        const char* end = value.data() + value.size();
        if (std::from_chars(value.data(), end, number).ptr != end) return value;
        const auto format = static_cast<std::size_t>(cell.attribute("s").as_uint());
        const Shown shown = format < formats_.size() ? formats_[format] : Shown::number;
        return shown == Shown::date ? shown_date(number)
                                    : shown_number(number, shown == Shown::percentage);
    }

    const std::vector<std::string>& texts_;
    const std::vector<Shown>& formats_;
};

} // namespace

std::vector<WorkbookSheet> read_office_open(const Archive& archive) {
    const std::string workbook = Relations(archive, "").of_type("/officeDocument");
    if (workbook.empty()) throw UnreadableWorkbook{"it is no workbook"};
    const Relations relations(archive, workbook);
    pugi::xml_document shared;
    if (const std::string path = relations.of_type("/sharedStrings"); !path.empty())
        archive.load(path, shared);
    std::vector<std::string> texts;
    for (const pugi::xml_node item : shared.child("sst").children("si"))
        texts.push_back(text_of(item));
    const std::vector<Shown> formats = read_formats(archive, relations.of_type("/styles"));
    pugi::xml_document document;
    archive.load(workbook, document);
    std::vector<WorkbookSheet> sheets;
    for (const pugi::xml_node one : document.child("workbook").child("sheets").children("sheet")) {
        const std::string path = relations.by_id(one.attribute("r:id").value());
        pugi::xml_document sheet;
        archive.load(path, sheet);
        sheets.push_back({one.attribute("name").value(), {}});
        SheetReader(texts, formats).read(sheet, sheets.back());
    }
    return sheets;
}

} // namespace panoplon
