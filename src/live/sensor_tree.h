// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The sensors that a Linux kernel shows: hwmon chips (temperatures, powers, fans, voltages), powercap energy
// counters and cpufreq clocks. A sensor is known by its chip's name and its own, not by the number that the
// kernel gives the chip: one that is unplugged and comes back under another number is the same.
// Units of the kernel: Documentation/hwmon/sysfs-interface (m°C, µW, rpm, mV), admin-guide/pm/powercap (µJ),
// admin-guide/pm/cpufreq (kHz).

#include "live/source.h"

#include <filesystem>
#include <map>

namespace ibuki {

/// The energy between two readings of a counter that begins again at its range, as a power.
std::optional<double> powerFromEnergy(double beforeUj, double nowUj, double rangeUj, double seconds);

class SensorTree {
public:
    /// root: "/sys" or a tree like it; or a folder of chips, hwmon0, hwmon1, …
    explicit SensorTree(std::filesystem::path root);

    const std::vector<SourceChannel>& channels() const { return channels_; }
    /// Looks where every sensor is now; those that are new come at the end. Returns how many.
    std::size_t rescan();
    /// In the order of the channels; NaN for what cannot be read now. A power from an energy counter needs
    /// two readings.
    std::vector<double> read(double steadyS);
    bool missed() const { return missed_; } ///< the last reading could not read everything
    std::size_t unreadable() const {
        return unreadable_;
    } ///< sensors that only others may read, seen by rescan

private:
    struct Sensor {
        std::string key; ///< chip, its place among those of the name, sensor
        std::filesystem::path file;
        double scale = 1;       ///< to the canonical unit
        double energyRange = 0; ///< µJ, of a counter; 0: none
        std::optional<double> energyBefore;
        double readAtS = 0;
    };
    void see(const Sensor& sensor, const SourceChannel& channel);
    void scanChips(const std::filesystem::path& folder);
    void scanPowercap(const std::filesystem::path& folder);
    void scanClocks(const std::filesystem::path& folder);

    std::filesystem::path root_;
    std::vector<Sensor> sensors_;
    std::vector<SourceChannel> channels_;
    std::map<std::string, std::size_t> places_; ///< of a key among the sensors
    std::size_t unreadable_ = 0;
    bool missed_ = false;
};

} // namespace ibuki
