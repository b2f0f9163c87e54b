using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fehler.Data.Migrations
{
    /// <inheritdoc />
    public partial class SecondFactor : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "LastCodeAt",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LastCodeHash",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SpareCodes",
                table: "People",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "LastCodeAt",
                table: "People");

            migrationBuilder.DropColumn(
                name: "LastCodeHash",
                table: "People");

            migrationBuilder.DropColumn(
                name: "SpareCodes",
                table: "People");
        }
    }
}
