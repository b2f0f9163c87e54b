using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fehler.Data;

/// <summary>Registers what this project offers.</summary>
public static class DataServices
{
    /// <param name="services">The service collection.</param>
    /// <param name="database">Path of the SQLite file.</param>
    /// <param name="circuitBytes">Memory that compiled circuits may take together.</param>
    public static IServiceCollection AddFehlerData(this IServiceCollection services, string database, long circuitBytes) =>
        services
            .AddDbContext<FehlerDb>(o => o.UseSqlite(DatabaseFile.ConnectionString(database)))
            .AddSingleton(new CompiledCircuits(circuitBytes))
            .AddSingleton<Turns>()
            .AddSingleton<JobNews>()
            .AddSingleton(TimeProvider.System)
            .AddScoped<CircuitStore>()
            .AddScoped<JobStore>()
            .AddScoped<HistoryReader>()
            .AddScoped<JournalDoor>()
            .AddScoped<PhotoStore>()
            .AddScoped<FollowUpStore>()
            .AddScoped<FollowedValues>()
            .AddScoped<Outlines>()
            .AddScoped<WorkStore>()
            .AddScoped<PlanStore>()
            .AddScoped<ShutdownStore>()
            .AddScoped<SpareStore>()
            .AddScoped<InsightReader>()
            .AddScoped<JobJudge>()
            .AddScoped<ExerciseStore>()
            .AddScoped<Bundle>()
            .AddScoped<Maker>()
            .AddScoped<SecurityLog>()
            .AddScoped<AccessStore>()
            .AddScoped<PeopleStore>()
            .AddScoped<SecondFactor>()
            .AddPeople();

    /// <summary>How people are kept: names as people have them, and tries that are counted. What a password has to be is said elsewhere.</summary>
    private static IServiceCollection AddPeople(this IServiceCollection services)
    {
        services
            .AddIdentityCore<Person>(o =>
            {
                o.User.AllowedUserNameCharacters = "";
                (o.Password.RequireDigit, o.Password.RequireLowercase, o.Password.RequireUppercase) = (false, false, false);
                (o.Password.RequireNonAlphanumeric, o.Password.RequiredUniqueChars) = (false, 0);
                o.Password.RequiredLength = PasswordRules.Shortest;
                (o.Lockout.MaxFailedAccessAttempts, o.Lockout.DefaultLockoutTimeSpan) = (5, TimeSpan.FromMinutes(15));
                o.Lockout.AllowedForNewUsers = true;
            })
            .AddEntityFrameworkStores<FehlerDb>()
            .AddTokenProvider<AuthenticatorTokenProvider<Person>>(TokenOptions.DefaultAuthenticatorProvider);
        return services;
    }
}
