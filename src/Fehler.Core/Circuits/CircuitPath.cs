using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>A path of the circuit: where it is taken from, what stands in it, and where it returns.</summary>
/// <param name="Name">What the drawing calls it, e.g. "Control" or "Power".</param>
/// <param name="Type">Whether it is drawn with the power or with the control circuit.</param>
/// <param name="From">Terminals it is taken from, one a conductor.</param>
/// <param name="To">Terminals it returns to; empty when the last part ends the path.</param>
/// <param name="Expression">What stands in it.</param>
public sealed record CircuitPath(
    string Name,
    PathType Type,
    ImmutableArray<TerminalId> From,
    ImmutableArray<TerminalId> To,
    PathExpression Expression
)
{
    public bool Equals(CircuitPath? other) =>
        other is not null
        && Name == other.Name
        && Type == other.Type
        && From.SequenceEqual(other.From)
        && To.SequenceEqual(other.To)
        && Expression.Equals(other.Expression);

    public override int GetHashCode() => HashCode.Combine(Name, Type, Expression);
}

public enum PathType
{
    Power,
    Control,
}
