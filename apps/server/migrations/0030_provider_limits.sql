CREATE TABLE "provider_limits" (
	"provider" text PRIMARY KEY NOT NULL,
	"month" bigint NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
