using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Families;

namespace Fehler.Evaluate;

/// <summary>Circuits the diagnosis is measured on: every family, with options that change what can be measured.</summary>
internal static class Circuits
{
    public static IEnumerable<(string Name, Circuit Circuit)> All =>
        [
            ("230 V line to neutral", new DirectOnLine { Tag = "E-1", Title = "Line to neutral" }.Build()),
            (
                "400 V line to line, overload contact after the coil",
                new DirectOnLine
                {
                    Tag = "E-2",
                    Title = "Line to line",
                    Control = ControlSupply.LineToLine,
                    OverloadContact = OverloadContactPlace.AfterCoil,
                }.Build()
            ),
            (
                "110 V transformer, earthed",
                new DirectOnLine
                {
                    Tag = "E-3",
                    Title = "Transformer",
                    Control = ControlSupply.Transformer,
                    ControlVolts = 110,
                }.Build()
            ),
            (
                "24 V DC with control relay",
                new DirectOnLine
                {
                    Tag = "E-4",
                    Title = "DC",
                    Control = ControlSupply.DcSupply,
                    ControlRelay = true,
                }.Build()
            ),
            (
                "two-wire",
                new DirectOnLine
                {
                    Tag = "E-5",
                    Title = "Two-wire",
                    Mode = StartMode.TwoWire,
                }.Build()
            ),
            ("single-phase, neutral looped", new SinglePhase { Tag = "E-6", Title = "Single-phase" }.Build()),
            (
                "four stations",
                new MultiStation
                {
                    Tag = "E-7",
                    Title = "Stations",
                    Stations = 4,
                }.Build()
            ),
            ("impulse relay", new ImpulseStarter { Tag = "E-8", Title = "Impulse" }.Build()),
            (
                "reversing",
                new Reversing
                {
                    Tag = "E-9",
                    Title = "Reversing",
                    ButtonInterlock = true,
                }.Build()
            ),
            ("up and down, brake on the load side", new UpDown { Tag = "E-10", Title = "Hoist" }.Build()),
            ("star-delta", new StarDelta { Tag = "E-11", Title = "Star-delta" }.Build()),
            (
                "drum switch",
                new ManualStarter
                {
                    Tag = "E-12",
                    Title = "Drum",
                    Drum = true,
                }.Build()
            ),
            ("controller-driven", new PlcDriven { Tag = "E-13", Title = "Controller" }.Build()),
        ];
}
