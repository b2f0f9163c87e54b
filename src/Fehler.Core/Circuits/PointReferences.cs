namespace Fehler.Core.Circuits;

/// <summary>What follows from the paths about single points: what they are measured to, and whether they carry direct voltage.</summary>
internal sealed class PointReferences
{
    private readonly Circuit _circuit;
    private readonly Dictionary<TerminalId, TerminalId> _returns = [];
    private readonly HashSet<TerminalId> _direct = [];

    public PointReferences(Circuit circuit)
    {
        _circuit = circuit;
        foreach (var path in circuit.Paths.Where(p => p is { Type: PathType.Control, From.Length: 1 }))
        {
            Follow(path);
        }

        // Clamps of a strip carry what their wire carries.
        foreach (var conductor in circuit.Conductors)
        {
            Share(conductor.From, conductor.To);
            Share(conductor.To, conductor.From);
        }
    }

    public TerminalId ReturnOf(TerminalId terminal) => _returns.GetValueOrDefault(terminal, _circuit.Reference);

    public bool IsDirect(TerminalId terminal) => _direct.Contains(terminal);

    private void Follow(CircuitPath path)
    {
        var points = path
            .From.Concat(path.To)
            .Concat(path.Expression.Parts().SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t))))
            .ToList();
        if (
            _circuit.Device(path.From[0].Device) is var source
            && source.Kind.DirectOutput is { } output
            && output.Plus == source.Own(path.From[0].Name)
        )
        {
            _direct.UnionWith(points);
        }

        foreach (var point in path.To.Length == 1 ? points : [])
        {
            _returns.TryAdd(point, path.To[0]);
        }
    }

    private void Share(TerminalId here, TerminalId there)
    {
        if (_direct.Contains(here))
        {
            _direct.Add(there);
        }

        if (_returns.TryGetValue(here, out var to))
        {
            _returns.TryAdd(there, to);
        }
    }
}
