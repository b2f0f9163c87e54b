using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A spring-applied brake: its coil lifts it. Without voltage it holds; not lifted, it makes the motor stall.</summary>
internal sealed partial class Brake : CoilOperated
{
    public override string Id => "brake";
    public override Wording Name => "brake";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (180, 60, 60);
    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } = [];
    private protected override (string A, string B) CoilTerminals => ("B1", "B2");

    private protected override ImmutableArray<Element> Contacts(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["applied", "lifted"];

    public override ImmutableArray<string> Appearances => ["applied", "lifted"];

    public override string Heard(string before, string after) =>
        after == before ? ""
        : after == "lifted" ? "a clack as it lifts"
        : "falls on";

    private protected override IEnumerable<Actuation> PressedToTry(Device device) => [];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("lifted", "Lift the brake by its hand lever", true, DeadOnly: true)];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"A raised load falls when {device.Tag} is lifted: secure it before touching the brake or its circuit."];
}
