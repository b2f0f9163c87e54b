using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A three-phase heater bank in star: each element from its lead to the star point.</summary>
internal sealed partial class HeaterBank : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Kilowatts = ParameterSpec.Number("kilowatts", "Rated power", "kW", 6, 0.1, 500);
        public static readonly NumberSpec Volts = ParameterSpec.Number("volts", "Voltage phase to phase", "V", 400, 50, 1000);
    }

    public override string Id => "heater-bank";
    public override Wording Name => "heater bank";
    public override string? RatedVoltsParameter => Plate.Volts.Name;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Kilowatts, Plate.Volts];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [new("U", "~star", ElementRole.Load), new("V", "~star", ElementRole.Load), new("W", "~star", ElementRole.Load)];

    private static readonly string[] Marked = ["U", "V", "W", "PE"];

    public override ImmutableArray<string> Terminals(Device device) => [.. Marked.Select(device.Printed)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override bool IsWorking(string appearance) => appearance == "heats";

    public override ImmutableArray<string> Appearances => ["cold", "heats", "heats weakly"];
}
