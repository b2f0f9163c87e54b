using System.Globalization;

namespace Fehler.Core.Circuits;

/// <summary>Voltage, V: the magnitude that a meter shows unless it says otherwise.</summary>
public readonly record struct Volts(double Value) : IComparable<Volts>
{
    /// <summary>Without the sign that direct voltage has.</summary>
    public Volts Magnitude => new(Math.Abs(Value));

    public int CompareTo(Volts other) => Value.CompareTo(other.Value);

    public static Volts operator *(double share, Volts volts) => new(share * volts.Value);

    public static double operator /(Volts a, Volts b) => a.Value / b.Value;

    public static bool operator <(Volts a, Volts b) => a.Value < b.Value;

    public static bool operator >(Volts a, Volts b) => a.Value > b.Value;

    public static bool operator <=(Volts a, Volts b) => a.Value <= b.Value;

    public static bool operator >=(Volts a, Volts b) => a.Value >= b.Value;

    public override string ToString() => Value.ToString("0.#", CultureInfo.InvariantCulture) + " V";
}

/// <summary>Current, A: the magnitude that a clamp shows.</summary>
public readonly record struct Amps(double Value) : IComparable<Amps>
{
    public int CompareTo(Amps other) => Value.CompareTo(other.Value);

    public static Amps operator *(double share, Amps amps) => new(share * amps.Value);

    public static double operator /(Amps a, Amps b) => a.Value / b.Value;

    public static bool operator <(Amps a, Amps b) => a.Value < b.Value;

    public static bool operator >(Amps a, Amps b) => a.Value > b.Value;

    public static bool operator <=(Amps a, Amps b) => a.Value <= b.Value;

    public static bool operator >=(Amps a, Amps b) => a.Value >= b.Value;

    public override string ToString() => Value.ToString("0.##", CultureInfo.InvariantCulture) + " A";
}

/// <summary>Resistance, ohm; infinite where a meter shows OL.</summary>
public readonly record struct Ohms(double Value) : IComparable<Ohms>
{
    /// <summary>Above the meter's range.</summary>
    public static Ohms Open { get; } = new(double.PositiveInfinity);

    /// <summary>The meter shows OL.</summary>
    public bool IsOpen => double.IsInfinity(Value);

    public int CompareTo(Ohms other) => Value.CompareTo(other.Value);

    public static Ohms operator *(double share, Ohms ohms) => new(share * ohms.Value);

    public static double operator /(Ohms a, Ohms b) => a.Value / b.Value;

    public static bool operator <(Ohms a, Ohms b) => a.Value < b.Value;

    public static bool operator >(Ohms a, Ohms b) => a.Value > b.Value;

    public static bool operator <=(Ohms a, Ohms b) => a.Value <= b.Value;

    public static bool operator >=(Ohms a, Ohms b) => a.Value >= b.Value;

    public override string ToString() => IsOpen ? "OL" : Value.ToString("0.##", CultureInfo.InvariantCulture) + " ohm";
}

/// <summary>Time, s.</summary>
public readonly record struct Seconds(double Value) : IComparable<Seconds>
{
    /// <summary>It never happens.</summary>
    public static Seconds Never { get; } = new(double.PositiveInfinity);

    /// <summary>It happens at some time.</summary>
    public bool IsFinite => double.IsFinite(Value);

    public int CompareTo(Seconds other) => Value.CompareTo(other.Value);

    public static Seconds operator +(Seconds a, Seconds b) => new(a.Value + b.Value);

    public static bool operator <(Seconds a, Seconds b) => a.Value < b.Value;

    public static bool operator >(Seconds a, Seconds b) => a.Value > b.Value;

    public static bool operator <=(Seconds a, Seconds b) => a.Value <= b.Value;

    public static bool operator >=(Seconds a, Seconds b) => a.Value >= b.Value;

    public override string ToString() => Value.ToString("0.##", CultureInfo.InvariantCulture) + " s";
}
