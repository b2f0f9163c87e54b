using System.Collections.Frozen;

namespace Fehler.Core.Circuits;

/// <summary>Every device kind there is, found in this assembly: adding one is adding its folder.</summary>
public static class DeviceKinds
{
    private static readonly FrozenDictionary<string, DeviceKind> ById = typeof(DeviceKinds)
        .Assembly.GetTypes()
        .Where(t => t.IsSubclassOf(typeof(DeviceKind)) && !t.IsAbstract)
        .Select(t => (DeviceKind)Activator.CreateInstance(t, nonPublic: true)!)
        .ToFrozenDictionary(k => k.Id);

    public static IEnumerable<DeviceKind> All => ById.Values.OrderBy(k => k.Id, StringComparer.Ordinal);

    public static DeviceKind? Find(string id) => ById.GetValueOrDefault(id);

    /// <exception cref="KeyNotFoundException">No kind has this id.</exception>
    public static DeviceKind Get(string id) => ById[id];
}
