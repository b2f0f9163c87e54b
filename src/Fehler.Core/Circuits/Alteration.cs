namespace Fehler.Core.Circuits;

/// <summary>One way in which a faulty circuit differs from the healthy one. The network applies them; nothing else does.</summary>
public abstract record Alteration
{
    /// <summary>The same fault of another size; itself when it has none.</summary>
    public virtual Alteration Scaled(double factor) => this;
}

/// <summary>The element no longer conducts, whatever its mechanism does.</summary>
public sealed record ElementOpen(string Device, string Element) : Alteration;

/// <summary>The contact is made, whatever its mechanism does.</summary>
public sealed record ElementMade(string Device, string Element) : Alteration;

/// <summary>The contact closes when it should open and opens when it should close: the wrong block, or NO and NC exchanged.</summary>
public sealed record ContactInverted(string Device, string Element) : Alteration;

/// <summary>The element has this resistance in series, ohm.</summary>
public sealed record ElementSeriesOhms(string Device, string Element, double Ohms) : Alteration
{
    public override Alteration Scaled(double factor) => this with { Ohms = Ohms * factor };
}

/// <summary>The element's impedance is multiplied by this factor (shorted turns: below 1).</summary>
public sealed record ElementImpedance(string Device, string Element, double Factor) : Alteration
{
    public override Alteration Scaled(double factor) => this with { Factor = Factor * factor };
}

/// <summary>A resistance between two terminals that should have none; no second terminal means earth.</summary>
public sealed record Bridge(TerminalId From, TerminalId? To, double Ohms) : Alteration
{
    /// <summary>Insulation that holds against an ohmmeter's few volts and breaks down at the circuit's or an insulation tester's.</summary>
    public bool UnderVoltage { get; init; }

    /// <summary>
    /// Id of the conductor whose insulation has failed at <see cref="From"/>: lifted there, it takes the fault with it; empty where it is no
    /// conductor's.
    /// </summary>
    public string FromIn { get; init; } = "";

    /// <summary>The same at <see cref="To"/>.</summary>
    public string ToIn { get; init; } = "";

    public override Alteration Scaled(double factor) => this with { Ohms = Ohms * factor };
}

/// <summary>The conductor is broken or lifted.</summary>
public sealed record ConductorOpen(string Conductor) : Alteration;

/// <summary>The conductor or one of its terminals has this resistance, ohm.</summary>
public sealed record ConductorSeriesOhms(string Conductor, double Ohms) : Alteration
{
    public override Alteration Scaled(double factor) => this with { Ohms = Ohms * factor };
}

/// <summary>The mechanism does not leave this position.</summary>
public sealed record PositionLocked(string Device, int Position) : Alteration;

/// <summary>What should bring the mechanism to this position does not reach it: it stays at rest.</summary>
public sealed record DoesNotReach(string Device, int Position) : Alteration;

/// <summary>The mechanism was found in this position but moves as it should.</summary>
public sealed record FoundInPosition(string Device, int Position) : Alteration;

/// <summary>Once operated by its coil the mechanism does not fall back.</summary>
public sealed record DoesNotReturn(string Device) : Alteration;

/// <summary>The device is not what the description says: another coil voltage, another setting, another supply.</summary>
public sealed record ParameterIs(string Device, string Parameter, ParameterValue Value) : Alteration
{
    public override Alteration Scaled(double factor) => Value.Number is { } number ? this with { Value = number * factor } : this;
}

/// <summary>The device sounds or looks wrong without being electrically different (a broken shading ring).</summary>
public sealed record AppearsAs(string Device, string Instead, string Appearance) : Alteration;
