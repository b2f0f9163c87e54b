using System.Collections.Concurrent;

namespace Fehler.Core.Circuits;

/// <summary>
/// A circuit with everything that follows from it alone: network, isolation, run-up, function test, fault catalogue, drawing, starting
/// hypotheses. Made once from a circuit version and passed explicitly. Each part is worked out when it is first asked for and is the same
/// from then on; a layer adds its own by an extension property over <see cref="Part{T}"/>.
/// </summary>
/// <remarks>Seen from outside immutable, and safe for use by several threads at once. Who keeps it decides how long its parts
/// live.</remarks>
public sealed class CompiledCircuit
{
    private readonly ConcurrentDictionary<Type, Lazy<object>> _parts = new();

    internal CompiledCircuit(Circuit circuit) => Circuit = circuit;

    /// <summary>The description that all of it follows from.</summary>
    public Circuit Circuit { get; }

    /// <summary>
    /// About how much memory the parts hold that have been worked out, bytes: what a cache bounds. Parts that grow with use say so
    /// themselves.
    /// </summary>
    public long Bytes =>
        _parts.Values.Where(p => p.IsValueCreated).Sum(p => (p.Value as IHoldsMemory)?.Bytes ?? IHoldsMemory.SmallPart)
        + IHoldsMemory.PerDevice * Circuit.Devices.Length;

    /// <summary>The part of this type, worked out when it is first asked for.</summary>
    internal T Part<T>(Func<CompiledCircuit, T> derive)
        where T : class =>
        (T)_parts.GetOrAdd(typeof(T), static (_, x) => new Lazy<object>(() => x.derive(x.whole)), (derive, whole: this)).Value;

    /// <summary>
    /// The terminal that a point is measured to: the return of the control path it stands in, or <see cref="Circuit.Reference"/>.
    /// </summary>
    public TerminalId ReturnOf(TerminalId terminal) => References.ReturnOf(terminal);

    /// <summary>Whether this point carries direct voltage: its path is fed by a DC supply or a rectifier.</summary>
    public bool IsDirect(TerminalId terminal) => References.IsDirect(terminal);

    private PointReferences References => Part(static c => new PointReferences(c.Circuit));
}

/// <summary>A part of a compiled circuit whose memory grows with use.</summary>
internal interface IHoldsMemory
{
    /// <summary>
    /// A list of some hundred small things, and what the description takes for each device with its conductors; measured.
    /// </summary>
    const long SmallPart = 64_000,
        PerDevice = 4_000;

    /// <summary>About how much it holds now.</summary>
    long Bytes { get; }
}
