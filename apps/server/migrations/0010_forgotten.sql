CREATE TABLE "forgotten" (
	"contact_id" bigint PRIMARY KEY NOT NULL,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
