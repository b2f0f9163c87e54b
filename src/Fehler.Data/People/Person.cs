using Microsoft.AspNetCore.Identity;

namespace Fehler.Data;

/// <summary>What a person may do beyond looking.</summary>
[Flags]
public enum Rights
{
    /// <summary>Look only.</summary>
    None = 0,

    /// <summary>An electrician: jobs, readings, repairs.</summary>
    Jobs = 1,

    /// <summary>A planner: circuits, register, plan, spares.</summary>
    Planning = 2,

    /// <summary>An administrator: people, devices, backup.</summary>
    Administration = 4,

    /// <summary>Everything.</summary>
    All = Jobs | Planning | Administration,
}

/// <summary>Somebody who signs in. <see cref="IdentityUser{TKey}.UserName"/> is the name that stands in the journals.</summary>
public sealed class Person : IdentityUser<Guid>
{
    /// <summary>What this person may do.</summary>
    public Rights Rights { get; set; }

    /// <summary>Live tests and closing a job need a second person (an apprentice).</summary>
    public bool NeedsSecond { get; set; }

    /// <summary>Hash of the PIN for tablets that an administrator trusts; null: none is set.</summary>
    public string? PinHash { get; set; }

    /// <summary>Hashes of the spare codes that were not used yet, a blank between; null where there is no second factor.</summary>
    public string? SpareCodes { get; set; }

    /// <summary>Hash of the code by time that let this person in last: it does not do so twice.</summary>
    public string? LastCodeHash { get; set; }

    public DateTimeOffset? LastCodeAt { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    /// <summary>When this person was taken out; the name stays in the journals unless it was asked to be replaced.</summary>
    public DateTimeOffset? RemovedAt { get; set; }

    /// <summary>The name.</summary>
    public string Name => UserName ?? "";
}
