using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Trade;

/// <summary>Names a sum for people.</summary>
/// <param name="id">Stable name.</param>
/// <param name="group">Heading it stands under.</param>
/// <param name="name">What it is called.</param>
[AttributeUsage(AttributeTargets.Class)]
public sealed class SumAttribute(string id, string group, string name) : Attribute
{
    public string Id { get; } = id;
    public string Group { get; } = group;
    public string Name { get; } = name;

    /// <summary>Where the rule comes from.</summary>
    public required string Source { get; init; }
}

/// <summary>A line of a sum that was worked out.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Formula">How it comes about, with the numbers in it; empty where it was looked up.</param>
/// <param name="Value">What it comes to.</param>
/// <param name="Unit">Its unit; empty for a share or a count.</param>
public sealed record SumLine(string Name, string Formula, double Value, string Unit)
{
    /// <summary>The value as it is written down.</summary>
    public string Shown => $"{Sum.N(Value)}{(Unit.Length > 0 ? $" {Unit}" : "")}";
}

/// <summary>A sum that was worked out.</summary>
/// <param name="Lines">The results, each with its formula.</param>
/// <param name="Says">What they mean, in sentences.</param>
public sealed record SumResult(ImmutableArray<SumLine> Lines, ImmutableArray<string> Says)
{
    /// <summary>The first result, which the sum is made for.</summary>
    public double Value => Lines[0].Value;

    /// <summary>The rule as a curve with what was given on it; null where nobody would draw one.</summary>
    public SumPlot? Plot { get; init; }
}

/// <summary>Curves of a sum, with the point that was worked out.</summary>
/// <param name="Across">What is laid off across, with its unit.</param>
/// <param name="Up">What is laid off upwards, with its unit.</param>
/// <param name="IsLogarithmic">Both ways by factors instead of by steps.</param>
/// <param name="Curves">The curves, the rule itself first.</param>
/// <param name="Mark">What was worked out; null where it is on no curve.</param>
public sealed record SumPlot(string Across, string Up, bool IsLogarithmic, ImmutableArray<SumCurve> Curves, SumPoint? Mark);

/// <summary>A curve with its name.</summary>
public sealed record SumCurve(string Name, ImmutableArray<SumPoint> Points);

/// <summary>A point of a curve.</summary>
public sealed record SumPoint(double Across, double Up);

/// <summary>One of the trade's sums: what is given as properties, what comes of it by <see cref="Work"/>.</summary>
public abstract record Sum
{
    private protected static readonly double Root3 = Math.Sqrt(3);

    /// <exception cref="RefusedException">What is given makes no sense; says what was expected.</exception>
    public abstract SumResult Work();

    /// <summary>A number to three digits that count, as it is written on paper.</summary>
    public static string N(double value)
    {
        if (value == 0 || !double.IsFinite(value))
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        var digits = Math.Clamp(2 - (int)Math.Floor(Math.Log10(Math.Abs(value))), 0, 6);
        return Math.Round(value, digits).ToString("0.######", CultureInfo.InvariantCulture);
    }

    /// <summary>What a number has to be to be of use here.</summary>
    private protected static void Expect(bool holds, string otherwise)
    {
        if (!holds)
        {
            throw new RefusedException(otherwise);
        }
    }

    private protected static void Positive(params (string Name, double Value)[] given)
    {
        foreach (var (name, value) in given)
        {
            Expect(double.IsFinite(value) && value > 0, $"{name} has to be more than 0.");
        }
    }

    private protected static SumLine Line(string name, string formula, double value, string unit = "") => new(name, formula, value, unit);

    private protected static SumResult Result(SumLine[] lines, params string[] says) => new([.. lines], [.. says.Where(s => s.Length > 0)]);
}
