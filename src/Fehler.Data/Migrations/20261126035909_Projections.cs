using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fehler.Data.Migrations
{
    /// <inheritdoc />
    public partial class Projections : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Jobs_CircuitId",
                table: "Jobs");

            migrationBuilder.AddColumn<long>(
                name: "Received",
                table: "Journal",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<int>(
                name: "EntryCount",
                table: "Jobs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "FoundFault",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "FoundKind",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Origin",
                table: "Jobs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "OwnOhms",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SearchText",
                table: "Jobs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "JobCount",
                table: "Circuits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "LastFound",
                table: "Circuits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "LastJobAt",
                table: "Circuits",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "LatestNumber",
                table: "Circuits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<Guid>(
                name: "LatestVersionId",
                table: "Circuits",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddColumn<Guid>(
                name: "OpenJobId",
                table: "Circuits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SearchText",
                table: "Circuits",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "Facts",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Facts", x => x.Name);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Jobs_CircuitId_OpenedAt",
                table: "Jobs",
                columns: new[] { "CircuitId", "OpenedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Jobs_Outcome_OpenedAt",
                table: "Jobs",
                columns: new[] { "Outcome", "OpenedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Circuits_Area_Tag",
                table: "Circuits",
                columns: new[] { "Area", "Tag" });

            Fill(migrationBuilder);
        }

        /// <summary>What is copied out of versions and journals from now on, for what is there already.</summary>
        private static void Fill(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                UPDATE Journal SET Received = At;
                UPDATE Jobs SET EntryCount = (SELECT COUNT(*) FROM Journal r WHERE r.JobId = Jobs.Id),
                    FoundFault = (SELECT json_extract(r.Json, '$.fault') FROM Journal r WHERE r.JobId = Jobs.Id AND r.Kind = 'Finding' ORDER BY r.Sequence DESC LIMIT 1);
                UPDATE Circuits SET
                    LatestNumber = COALESCE((SELECT MAX(v.Number) FROM CircuitVersions v WHERE v.CircuitId = Circuits.Id), 0),
                    LatestVersionId = COALESCE((SELECT v.Id FROM CircuitVersions v WHERE v.CircuitId = Circuits.Id ORDER BY v.Number DESC LIMIT 1), LatestVersionId),
                    JobCount = (SELECT COUNT(*) FROM Jobs j WHERE j.CircuitId = Circuits.Id),
                    OpenJobId = (SELECT j.Id FROM Jobs j WHERE j.CircuitId = Circuits.Id AND j.ClosedAt IS NULL ORDER BY j.OpenedAt DESC LIMIT 1),
                    LastJobAt = (SELECT MAX(j.OpenedAt) FROM Jobs j WHERE j.CircuitId = Circuits.Id),
                    LastFound = (SELECT j.FoundText FROM Jobs j WHERE j.CircuitId = Circuits.Id AND j.FoundText IS NOT NULL ORDER BY j.OpenedAt DESC LIMIT 1);
                UPDATE Circuits SET SearchText = lower(Tag || ' ' || Title || ' ' || Area || ' ' || Enclosure || ' ' || COALESCE(LastFound, ''));
                UPDATE Jobs SET SearchText = lower((SELECT c.Tag || ' ' || c.Title || ' ' || c.Area FROM Circuits c WHERE c.Id = Jobs.CircuitId)
                    || ' ' || Title || ' ' || COALESCE(FoundUnit, '') || ' ' || COALESCE(FoundText, ''));
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Facts");

            migrationBuilder.DropIndex(
                name: "IX_Jobs_CircuitId_OpenedAt",
                table: "Jobs");

            migrationBuilder.DropIndex(
                name: "IX_Jobs_Outcome_OpenedAt",
                table: "Jobs");

            migrationBuilder.DropIndex(
                name: "IX_Circuits_Area_Tag",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "Received",
                table: "Journal");

            migrationBuilder.DropColumn(
                name: "EntryCount",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FoundFault",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FoundKind",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Origin",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "OwnOhms",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "SearchText",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "JobCount",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "LastFound",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "LastJobAt",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "LatestNumber",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "LatestVersionId",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "OpenJobId",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "SearchText",
                table: "Circuits");

            migrationBuilder.CreateIndex(
                name: "IX_Jobs_CircuitId",
                table: "Jobs",
                column: "CircuitId");
        }
    }
}
