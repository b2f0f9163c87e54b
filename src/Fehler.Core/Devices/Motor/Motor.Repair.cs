using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Motor
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind switch
        {
            "stalled" or "overloaded" => Load(device, fault),
            _ => Winding(device, fault),
        };

    private static RepairNotes Load(Device device, FaultMode fault) =>
        new()
        {
            Steps =
            [
                fault.Remedy,
                "Uncouple it if it stays stiff: that tells the motor's bearings from the machine.",
                "Clear, grease or replace what is stiff; turn it by hand again.",
            ],
            Parts = ["Bearings, belts or chain, by what is found"],
            Causes =
            [
                new RootCause("Material jammed, belt too tight, bearing gone", "Turn the shaft by hand; listen; feel for heat"),
                new RootCause("The brake does not lift", "Watch it when the motor is switched on"),
                new RootCause(
                    "Low or unbalanced voltage: the motor draws more for the same work",
                    "Volts between all three phases under load: within some 2 % of each other"
                ),
                new RootCause("The work has become heavier", "Current in each phase against the nameplate, with and without material"),
            ],
            Cautions =
            [
                "A jammed drive may move when it is freed: secure it and stand clear.",
                $"{device.Tag} is hot after stalling: let it cool before it is tried again.",
            ],
        };

    private static RepairNotes Winding(Device device, FaultMode fault) =>
        new()
        {
            Steps =
            [
                "Open the motor's terminal box first: a loose or wet terminal there looks like a bad winding.",
                $"Lift the cable off the motor and measure both by themselves: windings to each other, each to {Term.Earth}; then the cable.",
                $"Replace {device.Tag} or have it rewound; mark the leads so that it turns the same way.",
            ],
            Parts = [$"Motor for {device.Tag}: same power, speed, voltage and mounting", "Terminal gaskets and glands"],
            Causes =
            [
                new RootCause("It has run on two phases", "Two of three windings dark: fuses, contacts and joints of the third phase"),
                new RootCause(
                    "Overload that nothing switched off",
                    "Overload set to the nameplate? Right class? Does its contact open the control circuit?"
                ),
                RepairNotes.Moisture,
                new RootCause("Dust on the fan cover, fan broken", "Look; feel the air"),
            ],
            Cautions = ["Insulation is measured at 500 V DC with electronics disconnected; discharge afterwards."],
        };
}
