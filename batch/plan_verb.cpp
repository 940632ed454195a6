#include <algorithm>
#include <charconv>
#include <cmath>

#include "batch/read_case.hpp"
#include "batch/verbs.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/schedule/plan.hpp"

namespace jig::batch {
namespace {

constexpr double kLongestWork = 1e8;
constexpr std::size_t kMostTasks = 2000;

/// s after midnight of "08:00"; "24:00" is the day's end.
double clock_from(const JsonPlace& place) {
    const auto text = place.text();
    int hour = -1, minute = -1;
    const auto colon = std::min(text.find(':'), text.size());
    const auto whole = [&](std::size_t from, std::size_t to, int& value) {
        const char* end = text.data() + to;
        const auto [at, fault] = std::from_chars(text.data() + std::min(from, to), end, value);
        return fault == std::errc() && at == end;
    };
    if (!whole(0, colon, hour) || !whole(colon + 1, text.size(), minute) || hour < 0 || hour > 24 ||
        minute < 0 || minute > 59 || (hour == 24 && minute > 0))
        place.fail("\"" + text + "\" is no time of day", "write it as 08:00");
    return 3600.0 * hour + 60.0 * minute;
}

CalendarRules calendar_from(const JsonPlace& place) {
    known_keys(place, {"days", "shifts", "holidays"});
    CalendarRules out;
    if (place.has("days")) {
        out.days.clear();
        const auto days = place.at("days");
        for (std::size_t i = 0; i < days.size(); ++i) {
            const int day = days.item(i).whole();
            if (day < 1 || day > 7) days.item(i).fail("there is no such day", "Monday is 1 and Sunday 7");
            out.days.insert(day);
        }
    }
    if (place.has("shifts")) {
        out.shifts.clear();
        const auto shifts = place.at("shifts");
        for (std::size_t i = 0; i < shifts.size(); ++i) {
            if (shifts.item(i).size() != 2)
                shifts.item(i).fail("a shift has a beginning and an end",
                                    "write it as [\"08:00\", \"16:00\"]");
            const double from = clock_from(shifts.item(i).item(0));
            if (from >= 86400) shifts.item(i).fail("no day begins at its end", "write 00:00");
            out.shifts.push_back({from, clock_from(shifts.item(i).item(1))});
        }
    }
    if (place.has("holidays")) {
        const auto holidays = place.at("holidays");
        for (std::size_t i = 0; i < holidays.size(); ++i)
            out.holidays.insert(static_cast<long>(
                std::floor(read_wall_time(holidays.item(i).text(), holidays.item(i).where()) / 86400)));
    }
    if (out.days.empty() || out.shifts.empty())
        place.fail("no shift ever begins", "give it at least one of \"days\" and of \"shifts\"");
    return out;
}

std::map<std::string, int> counts_from(const JsonPlace& place) {
    if (!place.raw().is_object()) place.fail("names with counts are expected here", "write {\"people\": 1}");
    std::map<std::string, int> out;
    for (const auto& [name, value] : place.raw().items()) {
        const int count = place.at(name.c_str()).whole();
        if (count < 0) place.at(name.c_str()).fail("a count is not below nought", "write 0 or more");
        out[name] = count;
    }
    return out;
}

PlanTask task_from(const JsonPlace& place) {
    known_keys(place, {"name", "work_s", "needs", "breakable", "wait_s", "after", "any_time"});
    PlanTask out;
    out.name = place.at("name").text();
    out.work = between(place, "work_s", 0, kLongestWork);
    if (place.has("needs")) out.needs = counts_from(place.at("needs"));
    if (place.has("breakable")) out.breakable = place.at("breakable").flag();
    if (place.has("any_time")) out.any_time = place.at("any_time").flag();
    out.wait = between(place, "wait_s", 0, kLongestWork, 0);
    return out;
}

void read_links(const JsonPlace& list, PlanRequest& out) {
    for (std::size_t i = 0; i < out.tasks.size(); ++i) {
        const auto place = list.item(i);
        if (!place.has("after")) continue;
        const auto after = place.at("after");
        for (std::size_t k = 0; k < after.size(); ++k) {
            const auto link = after.item(k);
            known_keys(link, {"task", "min_s", "max_s"});
            const auto name = link.at("task").text();
            const auto before = std::find_if(out.tasks.begin(), out.tasks.end(),
                                             [&](const PlanTask& t) { return t.name == name; });
            if (before == out.tasks.end())
                link.fail("\"" + name + "\" is no task", "write the name of one of the tasks");
            PlanLink to{static_cast<std::size_t>(before - out.tasks.begin()),
                        between(link, "min_s", 0, kLongestWork, 0),
                        {}};
            if (link.has("max_s") && !link.at("max_s").raw().is_null()) {
                to.most = between(link, "max_s", 0, kLongestWork);
                if (*to.most < to.least)
                    link.fail("its longest wait is under its least", "swap or widen them");
            }
            out.tasks[i].after.push_back(to);
        }
    }
}

}  // namespace

Json run_plan(const Arguments& a, Progress& progress) {
    const auto& path = a.file("the tasks");
    const auto json = parse_json(path, read_file(path));
    const JsonPlace place(json, path);
    known_keys(place, {"start", "calendar", "resources", "tasks", "deadline", "seconds"});
    PlanRequest asked;
    asked.start = read_wall_time(place.at("start").text(), place.at("start").where());
    if (place.has("calendar")) asked.calendar = calendar_from(place.at("calendar"));
    if (place.has("resources")) asked.resources = counts_from(place.at("resources"));
    asked.seconds = between(place, "seconds", 0.01, 3600, 5);
    const auto tasks = place.at("tasks");
    if (tasks.size() > kMostTasks) tasks.fail("there are more than 2000 tasks", "plan them in parts");
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        asked.tasks.push_back(task_from(tasks.item(i)));
        for (std::size_t k = 0; k < i; ++k) {
            if (asked.tasks[k].name == asked.tasks[i].name)
                tasks.item(i).fail("two tasks are named \"" + asked.tasks[i].name + "\"", "rename one");
        }
    }
    double work = 0;
    for (const auto& t : asked.tasks) work += t.work + t.wait;
    if (work > kLongest) tasks.fail("they take more than thirty years", "check their seconds");
    read_links(tasks, asked);
    const auto found = plan(asked, progress);
    Json out = Json::object();
    out["tasks"] = Json::array();
    for (std::size_t i = 0; i < found.tasks.size(); ++i) {
        const auto& t = found.tasks[i];
        out["tasks"].push_back({{"name", asked.tasks[i].name},
                                {"from", write_wall_time(t.from)},
                                {"to", write_wall_time(t.to)},
                                {"from_s", t.from - asked.start},
                                {"to_s", t.to - asked.start},
                                {"float_s", or_null(t.slack)}});
    }
    out["finish"] = write_wall_time(found.finish);
    out["finish_s"] = found.finish - asked.start;
    out["bound_s"] = found.bound - asked.start;
    out["proved"] = found.proved;
    out["looked_at"] = found.looked_at;
    double late = 0;
    if (place.has("deadline") && !place.at("deadline").raw().is_null())
        late = std::max(
            0.0, found.finish - read_wall_time(place.at("deadline").text(), place.at("deadline").where()));
    out["late"] = late > 0;
    out["late_s"] = late;
    return out;
}

}  // namespace jig::batch
