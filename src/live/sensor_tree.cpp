// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/sensor_tree.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fcntl.h>
#include <fmt/format.h>
#include <unistd.h>

namespace ibuki {
namespace {

namespace fs = std::filesystem;

constexpr double rescanEveryS = 2; ///< while something is missing

/// The first line of a small file; nothing when it cannot be read.
std::optional<std::string> lineIn(const fs::path& file) {
    const int fd = ::open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (fd < 0) return std::nullopt;
    char buffer[256];
    const ssize_t count = ::read(fd, buffer, sizeof buffer);
    ::close(fd);
    if (count < 0) return std::nullopt;
    std::string text(buffer, static_cast<std::size_t>(count));
    text.resize(std::min(text.size(), text.find('\n')));
    while (!text.empty() && (text.back() == ' ' || text.back() == '\r')) text.pop_back();
    return text;
}

std::optional<double> numberIn(const fs::path& file) {
    const auto text = lineIn(file);
    if (!text) return std::nullopt;
    double value = 0;
    const auto [end, error] = std::from_chars(text->data(), text->data() + text->size(), value);
    if (error != std::errc{} || end != text->data() + text->size() || !std::isfinite(value))
        return std::nullopt;
    return value;
}

/// Names inside a folder, those with a number in the order of their numbers.
std::vector<std::string> namesIn(const fs::path& folder) {
    std::vector<std::string> names;
    std::error_code error;
    for (auto at = fs::directory_iterator(folder, error); !error && at != fs::directory_iterator();
         at.increment(error))
        names.push_back(at->path().filename().string());
    const auto key = [](const std::string& name) {
        const std::size_t digit = name.find_first_of("0123456789");
        long number = 0;
        if (digit != std::string::npos)
            std::from_chars(name.data() + digit, name.data() + name.size(), number);
        return std::pair(name.substr(0, digit), number);
    };
    std::sort(names.begin(), names.end(), [&](const std::string& a, const std::string& b) {
        return std::pair(key(a), a) < std::pair(key(b), b);
    });
    return names;
}

struct Kind {
    std::string_view prefix; ///< of the file's name, a number behind it
    std::string_view suffix;
    Unit unit;
    double scale;
    std::string_view shown;
};

constexpr Kind kinds[] = {{"temp", "_input", Unit::celsius, 1000, "°C"},
                          {"power", "_input", Unit::watt, 1e6, "W"},
                          {"power", "_average", Unit::watt, 1e6, "W"},
                          {"fan", "_input", Unit::rpm, 1, "RPM"},
                          {"in", "_input", Unit::volt, 1000, "V"}};

/// "temp12" of "temp12_input" for that kind.
std::optional<std::string> sensorOf(const std::string& file, const Kind& kind) {
    if (!file.starts_with(kind.prefix) || !file.ends_with(kind.suffix)) return std::nullopt;
    const std::string name = file.substr(0, file.size() - kind.suffix.size());
    const std::string number = name.substr(std::min(kind.prefix.size(), name.size()));
    const bool digits = !number.empty() && number.find_first_not_of("0123456789") == std::string::npos;
    return digits ? std::optional(name) : std::nullopt;
}

Role roleOf(const std::string& column, Unit unit) {
    const Role role = guessRole(parseHeader(column)).role;
    const bool fits =
        (unit == Unit::celsius) == isTemperature(role)
        && (unit == Unit::watt)
               == (role == Role::packagePower || role == Role::gpuPower || role == Role::wallPower)
        && (unit == Unit::rpm) == (role == Role::fan);
    if (fits && role != Role::time) return role;
    return unit == Unit::rpm ? Role::fan : Role::ignore;
}

} // namespace

std::optional<double> powerFromEnergy(double beforeUj, double nowUj, double rangeUj, double seconds) {
    if (!(seconds > 0)) return std::nullopt;
    double spent = nowUj - beforeUj;
    if (spent < 0) spent += rangeUj; // the counter began again
    return spent < 0 ? std::nullopt : std::optional(spent / 1e6 / seconds);
}

SensorTree::SensorTree(fs::path root) : root_(std::move(root)) { rescan(); }

void SensorTree::see(const Sensor& sensor, const SourceChannel& channel) {
    const auto known = places_.find(sensor.key);
    if (known != places_.end()) {
        Sensor& there = sensors_[known->second];
        if (there.file != sensor.file) {
            there.file = sensor.file;
            there.energyBefore.reset();
        }
        return;
    }
    if (::access(sensor.file.c_str(), R_OK) != 0) {
        ++unreadable_;
        return;
    }
    places_[sensor.key] = sensors_.size();
    sensors_.push_back(sensor);
    SourceChannel seen = channel;
    seen.column = unlikeOthers(channel.column, channels_);
    channels_.push_back(std::move(seen));
}

void SensorTree::scanChips(const fs::path& folder) {
    std::map<std::string, int> ofName;
    for (const std::string& entry : namesIn(folder)) {
        if (!entry.starts_with("hwmon")) continue;
        const fs::path chip = folder / entry;
        const std::string name = lineIn(chip / "name").value_or(entry);
        const int place = ofName[name]++;
        for (const std::string& file : namesIn(chip))
            for (const Kind& kind : kinds) {
                const auto sensor = sensorOf(file, kind);
                if (!sensor) continue;
                const std::string label = lineIn(chip / (*sensor + "_label")).value_or(*sensor);
                SourceChannel channel;
                channel.column = fmt::format("{} {} [{}]", name, label, kind.shown);
                channel.unit = kind.unit;
                channel.role = roleOf(channel.column, kind.unit);
                see({fmt::format("{}/{}/{}", name, place, file), chip / file, kind.scale, 0, {}, 0}, channel);
            }
    }
}

void SensorTree::scanPowercap(const fs::path& folder) {
    for (const std::string& zone : namesIn(folder)) {
        const fs::path counter = folder / zone / "energy_uj";
        std::error_code ignored;
        if (!fs::exists(counter, ignored)) continue;
        SourceChannel channel;
        channel.column = fmt::format("{} {} [W]", lineIn(folder / zone / "name").value_or("energy"), zone);
        channel.unit = Unit::watt;
        // "package-0" is all of a processor; core, uncore and memory are parts of it.
        channel.role = lineIn(folder / zone / "name").value_or("").starts_with("package") ? Role::packagePower
                                                                                          : Role::ignore;
        const double range = numberIn(folder / zone / "max_energy_range_uj").value_or(0);
        see({"powercap/" + zone, counter, 1, std::max(range, 1.0), {}, 0}, channel);
    }
}

void SensorTree::scanClocks(const fs::path& folder) {
    for (const std::string& cpu : namesIn(folder)) {
        const fs::path clock = folder / cpu / "cpufreq" / "scaling_cur_freq";
        std::error_code ignored;
        if (!cpu.starts_with("cpu") || !fs::exists(clock, ignored)) continue;
        see({"cpufreq/" + cpu, clock, 1000, 0, {}, 0},
            {fmt::format("{} Clock [MHz]", cpu), Role::clock, Unit::megahertz, {}, {}});
    }
}

std::size_t SensorTree::rescan() {
    const std::size_t before = channels_.size();
    unreadable_ = 0;
    std::error_code ignored;
    if (fs::is_directory(root_ / "class", ignored)) {
        scanChips(root_ / "class" / "hwmon");
        scanPowercap(root_ / "class" / "powercap");
        scanClocks(root_ / "devices" / "system" / "cpu");
    } else {
        scanChips(root_);
        scanPowercap(root_);
    }
    return channels_.size() - before;
}

std::vector<double> SensorTree::read(double steadyS) {
    std::vector<double> values;
    missed_ = false;
    for (Sensor& sensor : sensors_) {
        const auto number = numberIn(sensor.file);
        missed_ = missed_ || !number;
        if (!number) {
            sensor.energyBefore.reset();
            values.push_back(nan);
        } else if (sensor.energyRange > 0) {
            const auto power = sensor.energyBefore
                                   ? powerFromEnergy(*sensor.energyBefore, *number, sensor.energyRange,
                                                     steadyS - sensor.readAtS)
                                   : std::nullopt;
            sensor.energyBefore = number;
            sensor.readAtS = steadyS;
            values.push_back(power.value_or(nan));
        } else {
            values.push_back(*number / sensor.scale);
        }
    }
    return values;
}

namespace {

class SensorSource : public Source {
public:
    SensorSource(std::string spec, const std::string& root, const SourceOptions& options)
        : spec_(std::move(spec)), tree_(root), everyS_(options.everyS) {
        if (tree_.channels().empty())
            throw InputError(tree_.unreadable() > 0 ? "source-empty.unreadable" : "source-empty",
                             {root, {}, {}});
    }

    const std::string& spec() const override { return spec_; }
    std::vector<SourceChannel> channels() const override { return tree_.channels(); }
    double intervalS() const override { return everyS_; }

    std::vector<double> readNow() override {
        tree_.read(steadyNowS());
        waitUntil({}, steadyNowS() + 0.1); // counters need a stretch of time
        return tree_.read(steadyNowS());
    }

    void run(const std::stop_token& stop, SourceSink& sink) override {
        const double begin = steadyNowS();
        double scanned = begin;
        for (std::int64_t i = 0;; ++i) {
            if (!waitUntil(stop, begin + static_cast<double>(i) * everyS_)) return;
            const double now = steadyNowS();
            i = std::max(
                i, static_cast<std::int64_t>((now - begin) / everyS_)); // late: those in between are left out
            if (now - scanned >= rescanEveryS || (tree_.missed() && now - scanned >= 0.25)) {
                const std::size_t before = tree_.channels().size();
                if (tree_.rescan() > 0)
                    sink.add({tree_.channels().begin() + static_cast<std::ptrdiff_t>(before),
                              tree_.channels().end()});
                scanned = now;
            }
            sink.take({now - begin, tree_.read(now)});
        }
    }

private:
    std::string spec_;
    SensorTree tree_;
    double everyS_;
};

} // namespace

std::unique_ptr<Source> openSensorTree(const std::string& spec, const std::string& root,
                                       const SourceOptions& options) {
    return std::make_unique<SensorSource>(spec, root, options);
}

} // namespace ibuki
