using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Families;

/// <summary>Every family, with the options that change its wiring most, the unusual combinations among them.</summary>
public static class FamilySamples
{
    private static readonly Dictionary<string, Func<Starter>> Starters = new()
    {
        ["dol-transformer-earthed"] = () =>
            new DirectOnLine
            {
                Tag = "S-1",
                Title = "Log deck",
                Control = ControlSupply.Transformer,
                ControlVolts = 110,
                PowerLamp = true,
                StopLamp = true,
            },
        ["dol-480-unearthed"] = () =>
            new DirectOnLine
            {
                Tag = "S-2",
                Title = "Chipper feed",
                System = SupplySystem.Delta,
                LineVolts = 480,
                Frequency = 60,
                MotorRpm = 1750,
                Control = ControlSupply.LineToLine,
                ControlProtection = ControlProtection.SeparateBreaker,
                OverloadContact = OverloadContactPlace.AfterCoil,
            },
        ["dol-high-leg"] = () =>
            new DirectOnLine
            {
                Tag = "S-3",
                Title = "Pump",
                System = SupplySystem.HighLeg,
                LineVolts = 240,
                Frequency = 60,
                MotorRpm = 1750,
                FilamentLamps = true,
            },
        ["dol-corner-earthed-shunt"] = () =>
            new DirectOnLine
            {
                Tag = "S-4",
                Title = "Fan",
                System = SupplySystem.CornerEarthed,
                LineVolts = 240,
                Frequency = 60,
                MotorRpm = 1750,
                Protection = MotorProtection.Breaker,
                ShuntTrip = true,
                Control = ControlSupply.Transformer,
                ControlVolts = 120,
                Earthing = ControlEarthing.CentreTap,
            },
        ["dol-dc-relay"] = () =>
            new DirectOnLine
            {
                Tag = "S-5",
                Title = "Conveyor",
                Control = ControlSupply.DcSupply,
                ControlRelay = true,
                VoltageMonitor = true,
            },
        ["dol-dc-unearthed"] = () =>
            new DirectOnLine
            {
                Tag = "S-6",
                Title = "Conveyor",
                Control = ControlSupply.DcSupply,
                Earthing = ControlEarthing.Unearthed,
                Protection = MotorProtection.MotorBreaker,
            },
        ["dol-two-wire"] = () =>
            new DirectOnLine
            {
                Tag = "S-7",
                Title = "Sprinkler pump",
                Mode = StartMode.TwoWire,
                Permissive = Permissive.TwoInParallel,
                EndSwitch = true,
                LocalIsolator = true,
            },
        ["dol-heater"] = () =>
            new DirectOnLine
            {
                Tag = "S-8",
                Title = "Kiln heater",
                Driven = Driven.HeaterBank,
                Permissive = Permissive.TwoInSeries,
            },
        ["single-phase"] = () => new SinglePhase { Tag = "S-9", Title = "Bench fan" },
        ["single-phase-start-capacitor"] = () =>
            new SinglePhase
            {
                Tag = "S-30",
                Title = "Sharpening bench",
                Capacitor = CapacitorPlace.Start,
                Looped = LoopedConductor.Line,
            },
        ["single-phase-line-looped"] = () =>
            new SinglePhase
            {
                Tag = "S-10",
                Title = "Bench fan",
                Looped = LoopedConductor.Line,
                OverloadContact = OverloadContactPlace.First,
            },
        ["nine-stations"] = () =>
            new MultiStation
            {
                Tag = "S-11",
                Title = "Green chain",
                Stations = 9,
            },
        ["twelve-stations-home-run"] = () =>
            new MultiStation
            {
                Tag = "S-12",
                Title = "Green chain",
                // At 15 m a kilometre of cable side by side would hold the coil in.
                BetweenMetres = 4,
                Stations = 12,
                Cabling = StationCabling.HomeRun,
                Control = ControlSupply.Transformer,
                ControlVolts = 230,
            },
        ["impulse"] = () =>
            new ImpulseStarter
            {
                Tag = "S-13",
                Title = "Exhaust fan",
                Buttons = 4,
                Selector = true,
            },
        ["reversing"] = () =>
            new Reversing
            {
                Tag = "S-14",
                Title = "Kiln fan",
                ButtonInterlock = true,
                CoastSeconds = 15,
            },
        ["reversing-l2l3-no-electrical"] = () =>
            new Reversing
            {
                Tag = "S-15",
                Title = "Kiln fan",
                Swapped = SwappedPhases.L2L3,
                ElectricalInterlock = false,
                MechanicalInterlock = false,
            },
        ["reversing-lock-out"] = () =>
            new Reversing
            {
                Tag = "S-16",
                Title = "Kiln fan",
                LockOutSeconds = 30,
                Side = SwapSide.Line,
                Control = ControlSupply.DcSupply,
            },
        ["hoist"] = () =>
            new UpDown
            {
                Tag = "S-17",
                Title = "Stacking hoist",
                SafetyEdge = true,
            },
        ["hoist-two-motions"] = () =>
            new UpDown
            {
                Tag = "S-18",
                Title = "Stacking hoist",
                Motions = 2,
                Brake = BrakeFeed.OwnContactor,
                Control = ControlSupply.Transformer,
                ControlVolts = 48,
            },
        ["star-delta"] = () => new StarDelta { Tag = "S-19", Title = "Dust extraction" },
        ["star-delta-line"] = () =>
            new StarDelta
            {
                Tag = "S-20",
                Title = "Chipper",
                Overloads = StarDeltaOverload.Line,
                MechanicalInterlock = true,
                Control = ControlSupply.LineToLine,
            },
        ["manual"] = () => new ManualStarter { Tag = "S-21", Title = "Grinder" },
        ["drum"] = () =>
            new ManualStarter
            {
                Tag = "S-22",
                Title = "Trolley",
                Drum = true,
                LocalIsolator = true,
            },
        ["plc"] = () => new PlcDriven { Tag = "S-23", Title = "Sorter" },
        ["plc-reversing"] = () =>
            new PlcDriven
            {
                Tag = "S-24",
                Title = "Sorter",
                IsReversing = true,
                Trip = TripInput.MakeContact,
                Control = ControlSupply.Transformer,
                ControlVolts = 110,
            },
        ["plc-supervised"] = () =>
            new PlcDriven
            {
                Tag = "S-25",
                Title = "Sorter",
                IsReversing = true,
                Protection = MotorProtection.Breaker,
                Breaker = BreakerInput.MakeContact,
                ShuntOutput = true,
                LockOutSeconds = 12,
            },
        ["door"] = () =>
            new UpDown
            {
                Tag = "S-26",
                Title = "Kiln door",
                Retained = Retained.Both,
                SafetyEdge = true,
                ControlOn = false,
                Brake = BrakeFeed.None,
            },
        ["dol-dc-behind-transformer"] = () =>
            new DirectOnLine
            {
                Tag = "S-27",
                Title = "Water pump",
                Control = ControlSupply.TransformerAndDcSupply,
                ControlPhases = ControlPhases.L2L3,
                StopPlace = StopPlace.AfterStart,
            },
        ["chain-linked-out"] = () =>
            new MultiStation
            {
                Tag = "S-28",
                Title = "Chain",
                Stations = 2,
                RemoteLink = true,
                StopPlace = StopPlace.AfterStart,
                Control = ControlSupply.LineToLine,
                ControlPhases = ControlPhases.L3L1,
            },
        ["impulse-watched"] = () =>
            new ImpulseStarter
            {
                Tag = "S-29",
                Title = "Vent fan",
                CommonReturn = true,
                OverloadContact = OverloadContactPlace.AfterCoil,
                VoltageMonitor = true,
                MonitorNeutral = true,
                MonitorPerCause = true,
                PowerLamp = true,
                ControlPhases = ControlPhases.L2L3,
            },
    };

    private static readonly Dictionary<string, Circuit> Built = Starters.ToDictionary(s => s.Key, s => s.Value().Build());

    public static TheoryData<string> Names => [.. Starters.Keys];

    public static Circuit Of(string name) => Built[name];

    public static IEnumerable<Circuit> All => Built.Values;
}
